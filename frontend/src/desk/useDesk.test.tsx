import { act, renderHook, waitFor } from "@testing-library/react";
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

  it("asks again what got no answer, unless another question came or it is refused", async () => {
    vi.useFakeTimers();
    const said: number[] = [];
    let answer: (entry: number) => Response | null = () => null;
    vi.stubGlobal("fetch", async (request: Request) => {
      const { entry_mm } = (await request.json()) as { entry_mm: number };
      said.push(entry_mm);
      const reply = answer(entry_mm);
      if (reply === null) throw new TypeError("no network");
      return reply;
    });
    const json = (body: object, status = 200) =>
      new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });
    const { result, rerender } = renderHook(({ entry }) => useDesk(at(entry)), { initialProps: { entry: -10 } });
    await act(() => vi.advanceTimersByTimeAsync(100));
    expect(result.current.failure).toContain("No answer came");
    rerender({ entry: -20 });
    answer = (entry) => json({ heads: [{ strike: { carry_m: entry } }] });
    await act(() => vi.advanceTimersByTimeAsync(10_000));
    expect(said).toEqual([-10, -20]);
    expect([result.current.failure, result.current.answer?.heads[0]?.strike.carry_m]).toEqual([null, -20]);
    answer = () => null;
    rerender({ entry: -30 });
    await act(() => vi.advanceTimersByTimeAsync(100));
    answer = () => json({ code: "invalid", message: "No such ground.", faults: [] }, 422);
    await act(() => vi.advanceTimersByTimeAsync(30_000));
    expect(said).toEqual([-10, -20, -30, -30]);
    expect(result.current.failure).toBe("No such ground.");
    vi.useRealTimers();
  });
});
