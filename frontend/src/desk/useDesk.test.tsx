import { renderHook, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { LIES, type Setup } from "./setup";
import { useDesk } from "./useDesk";

type Waiting = { entry: number; answer: () => void };
let asked: Waiting[] = [];

beforeEach(() => {
  asked = [];
  vi.stubGlobal("fetch", (request: Request) =>
    request.text().then(
      (text) =>
        new Promise<Response>((done) => {
          const { entry_mm } = JSON.parse(text) as { entry_mm: number };
          const body = JSON.stringify({ heads: [{ strike: { carry_m: entry_mm } }] });
          const answer = () =>
            done(new Response(body, { status: 200, headers: { "Content-Type": "application/json" } }));
          asked.push({ entry: entry_mm, answer });
        }),
    ),
  );
});

const at = (entry_mm: number) => ({
  ...(LIES.fairway as Setup),
  entry_mm,
  heads: [{ loft_deg: 56, bounce_deg: 10 }],
  twins: false,
});

describe("useDesk", () => {
  it("has one question out, skips those overtaken, and never shows a stale answer", async () => {
    const { result, rerender } = renderHook(({ entry }) => useDesk(at(entry)), { initialProps: { entry: -10 } });
    await waitFor(() => expect(asked).toHaveLength(1));
    rerender({ entry: -20 });
    rerender({ entry: -30 });
    rerender({ entry: -40 });
    expect(asked).toHaveLength(1);
    asked[0]?.answer();
    await waitFor(() => expect(asked).toHaveLength(2));
    expect(result.current.answer).toBeNull();
    expect(asked[1]?.entry).toBe(-40);
    asked[1]?.answer();
    await waitFor(() => expect(result.current.answer?.heads[0]?.strike.carry_m).toBe(-40));
    expect(asked).toHaveLength(2);
  });
});
