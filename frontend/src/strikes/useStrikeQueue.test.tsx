import "fake-indexeddb/auto";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Strike } from "../api/client";
import { FittingProvider } from "../app/context";
import type { FittingStore } from "../app/useFitting";
import { dropAct, waitingActs } from "./actStore";
import { newId } from "./newId";
import { useStrikeQueue, withAhead } from "./useStrikeQueue";

const strike = (id: string, carry_m = 60) =>
  ({ id, club: "pw", loft_deg: 46, swing: "full", carry_m, set_aside: null, origin: "typed" }) as Strike;

const reload = vi.fn(() => Promise.resolve());

function wrapper({ children }: { children: ReactNode }) {
  const store = { server: { id: "f" }, reload } as unknown as FittingStore;
  return (
    <QueryClientProvider client={new QueryClient()}>
      <FittingProvider value={store}>{children}</FittingProvider>
    </QueryClientProvider>
  );
}

const said: string[] = [];

function network(answer: (method: string, body: string) => Response | null) {
  vi.stubGlobal(
    "fetch",
    vi.fn(async (request: Request) => {
      const body = await request.text();
      said.push(`${request.method} ${body}`);
      const reply = answer(request.method, body);
      if (reply === null) throw new TypeError("no network");
      return reply;
    }),
  );
}

const json = (value: unknown, status = 200) =>
  new Response(JSON.stringify(value), { status, headers: { "Content-Type": "application/json" } });

beforeEach(async () => {
  localStorage.clear();
  for (const { key } of await waitingActs("f")) await dropAct(key);
  said.length = 0;
  reload.mockClear();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("strikes on their way", () => {
  it("are sent in order and the fitting is read again", async () => {
    network(() => json({ taken: 1 }));
    const { result } = renderHook(useStrikeQueue, { wrapper });
    act(() => {
      result.current.take(strike("a"));
      result.current.take(strike("b"));
    });
    await waitFor(() => expect(result.current.waiting).toEqual([]));
    expect(said.map((line) => /"id":"(.)"/.exec(line)?.[1])).toEqual(["a", "b"]);
    await waitFor(() => expect(reload).toHaveBeenCalled());
  });

  it("outlive a lost connection and a closed page, and are sent with the same id", async () => {
    network(() => null);
    const first = renderHook(useStrikeQueue, { wrapper });
    act(() => first.result.current.take(strike("a")));
    await waitFor(() => expect(first.result.current.offline).toBe(true));
    expect(first.result.current.waiting).toHaveLength(1);
    expect((await waitingActs("f")).map((kept) => kept.act.kind)).toEqual(["take"]);
    expect(await waitingActs("another fitting")).toEqual([]);
    first.unmount();
    network(() => json({ taken: 1 }));
    const second = renderHook(useStrikeQueue, { wrapper });
    await waitFor(async () => expect(await waitingActs("f")).toEqual([]));
    await waitFor(() => expect(second.result.current.waiting).toEqual([]));
    expect(said.filter((line) => line.includes('"id":"a"')).length).toBeGreaterThanOrEqual(2);
  });

  it("are all kept when many are taken at once, and each is sent once", async () => {
    network(() => json({ taken: 1 }));
    const { result } = renderHook(useStrikeQueue, { wrapper });
    act(() => {
      for (let i = 0; i < 40; i++) result.current.take(strike(`s${i}`));
    });
    await waitFor(() => expect(said).toHaveLength(40));
    expect(new Set(said.map((line) => /"id":"(.+?)"/.exec(line)?.[1])).size).toBe(40);
    await waitFor(async () => expect(await waitingActs("f")).toEqual([]));
  });

  it("are not lost when the page closes before the database has them", async () => {
    network(() => json({ taken: 1 }));
    const row = { id: "slip", fitting: "f", at: 5, act: { kind: "take", strike: strike("a") } };
    localStorage.setItem("oblatus-act-slip", JSON.stringify(row));
    const { result } = renderHook(useStrikeQueue, { wrapper });
    await waitFor(() => expect(said.filter((line) => line.includes('"id":"a"'))).toHaveLength(1));
    await waitFor(async () => expect(await waitingActs("f")).toEqual([]));
    expect(Object.keys(localStorage)).toEqual([]);
    act(() => result.current.take(strike("b")));
    expect(Object.keys(localStorage)).toHaveLength(1);
    await waitFor(() => expect(Object.keys(localStorage)).toEqual([]));
  });

  it("are not sent again when another page of this browser sent them", async () => {
    network(() => null);
    const { result } = renderHook(useStrikeQueue, { wrapper });
    act(() => {
      result.current.take(strike("a"));
      result.current.take(strike("b"));
    });
    await waitFor(() => expect(result.current.offline).toBe(true));
    const [first] = await waitingActs("f");
    await dropAct(first?.key ?? "");
    said.length = 0;
    network(() => json({ taken: 1 }));
    act(() => void window.dispatchEvent(new Event("online")));
    await waitFor(() => expect(result.current.waiting).toEqual([]));
    expect(said.map((line) => /"id":"(.+?)"/.exec(line)?.[1])).toEqual(["b"]);
  });

  it("carry what is said of them later, behind them", async () => {
    network(() => json({ taken: 1 }));
    const { result } = renderHook(useStrikeQueue, { wrapper });
    act(() => {
      result.current.take(strike("a"));
      result.current.tell("a", { divot: "deep", note: "wet" });
    });
    await waitFor(() => expect(said).toHaveLength(2));
    expect(said[1]).toBe('PATCH {"divot":"deep","note":"wet"}');
  });

  it("do not hold the others back when the server refuses one", async () => {
    network((_, body) =>
      body.includes('"id":"bad"') ? json({ message: "carry must be less" }, 422) : json({ taken: 1 }),
    );
    const { result } = renderHook(useStrikeQueue, { wrapper });
    act(() => {
      result.current.take(strike("bad"));
      result.current.take(strike("good"));
    });
    await waitFor(() => expect(result.current.waiting).toEqual([]));
    expect(result.current.failure).toBe("carry must be less");
    expect(said).toHaveLength(2);
  });
});

describe("what waits", () => {
  it("shows as it will be", () => {
    const found = withAhead(
      [strike("a"), strike("b")],
      [
        { kind: "take", strike: strike("c") },
        { kind: "tell", id: "a", changes: { set_aside: "thin" } },
        { kind: "undo", id: "b" },
        { kind: "tell", id: "gone", changes: { note: "thin" } },
      ],
    );
    expect(found.map((s) => [s.id, s.set_aside])).toEqual([
      ["a", "thin"],
      ["c", null],
    ]);
  });

  it("has ids that are told apart", () => {
    const ids = new Set(Array.from({ length: 500 }, newId));
    expect(ids.size).toBe(500);
    for (const id of ids) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
  });
});
