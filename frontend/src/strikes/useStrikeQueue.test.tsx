import "fake-indexeddb/auto";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Session, Strike } from "../api/client";
import { FittingProvider, type ShownFitting } from "../app/context";
import type { Deed } from "../history/acts";
import { SessionProvider } from "../session/session";
import { dropAct, waitingActs } from "./actStore";
import { withAhead } from "./sending";
import { useStrikeQueue } from "./useStrikeQueue";

const strike = (id: string, carry_m = 60) =>
  ({ id, club: "pw", loft_deg: 46, swing: "full", carry_m, set_aside: null, origin: "typed" }) as Strike;

const reload = vi.fn(() => Promise.resolve());

const did = vi.fn();
let redo: (deed: Deed, back: boolean) => void = () => {};
const wedge = (name: string) => ({ name, loft_deg: 54 });
const store = {
  server: { id: "f", document: { bag: { wedges: [wedge("gap"), wedge("sand")] } } },
  reload,
  did,
  onDeed: (hear: typeof redo) => {
    redo = hear;
  },
} as unknown as ShownFitting;
const client = new QueryClient();
const session = (fitter_id: string) =>
  ({ csrf_token: "t", fitter: "Me", fitter_id, demo: false }) as unknown as Session;

const as =
  (fitter: string) =>
  ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>
      <SessionProvider session={session(fitter)}>
        <FittingProvider value={store}>{children}</FittingProvider>
      </SessionProvider>
    </QueryClientProvider>
  );
const wrapper = as("me");

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
  for (const { key } of await waitingActs("me", "f")) await dropAct(key);
  said.length = 0;
  reload.mockClear();
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

  it("are sent again when a line is lost without a word", async () => {
    const limits: AbortController[] = [];
    const limit = vi.spyOn(AbortSignal, "timeout").mockImplementation(() => {
      const one = new AbortController();
      limits.push(one);
      return one.signal;
    });
    let asked = 0;
    vi.stubGlobal("fetch", (_: Request, { signal }: { signal: AbortSignal }) => {
      asked += 1;
      return new Promise((_done, no) => signal.addEventListener("abort", () => no(signal.reason)));
    });
    const { result } = renderHook(useStrikeQueue, { wrapper });
    act(() => result.current.take(strike("a")));
    await waitFor(() => expect(asked).toBe(1));
    network(() => json({ taken: 1 }));
    act(() => limits[0]?.abort());
    await waitFor(() => expect(result.current.pause).toBe("offline"));
    limit.mockRestore();
    act(() => void window.dispatchEvent(new Event("online")));
    await waitFor(() => expect(result.current.waiting).toEqual([]));
    expect(said).toHaveLength(1);
  });

  it("go once the server answers again, also with what more was said of them meanwhile", async () => {
    network(() => null);
    const { result } = renderHook(useStrikeQueue, { wrapper });
    act(() => {
      result.current.take(strike("a"));
      result.current.tell("a", { note: "thin" });
    });
    await waitFor(() => expect(result.current.pause).toBe("offline"));
    network(() => json({ taken: 1 }));
    await waitFor(() => expect(result.current.waiting).toEqual([]));
    expect(said.map((line) => line.split(" ")[0])).toEqual(["POST", "POST", "PATCH"]);
  });

  it("are sent also where the browser cannot say whether they wait", async () => {
    network(() => json({ taken: 1 }));
    const broken = vi.spyOn(IDBObjectStore.prototype, "getKey").mockImplementation(() => {
      throw new DOMException("closed", "InvalidStateError");
    });
    const { result } = renderHook(useStrikeQueue, { wrapper });
    act(() => result.current.take(strike("a")));
    await waitFor(() => expect(result.current.waiting).toEqual([]));
    broken.mockRestore();
    expect(said).toHaveLength(1);
  });

  it("wait no longer where the clock of the tablet is set back", async () => {
    network(() => null);
    const { result } = renderHook(useStrikeQueue, { wrapper });
    act(() => result.current.take(strike("a")));
    await waitFor(() => expect(result.current.pause).toBe("offline"));
    const back = vi.spyOn(Date, "now").mockReturnValue(Date.now() - 3_600_000);
    network(() => json({ taken: 1 }));
    await waitFor(() => expect(result.current.waiting).toEqual([]));
    back.mockRestore();
  });

  it("tell which wedges were in the bag when they were hit, whatever leaves it before they are sent", async () => {
    network(() => null);
    const { result, rerender } = renderHook(useStrikeQueue, { wrapper });
    act(() => result.current.take({ ...strike("a"), club: "own:1" }));
    await waitFor(() => expect(result.current.pause).toBe("offline"));
    const before = store.server;
    store.server = { id: "f", document: { bag: { wedges: [wedge("sand")] } } } as unknown as typeof before;
    rerender();
    act(() => result.current.take({ ...strike("b"), club: "own:0" }));
    network(() => json({ taken: 1 }));
    act(() => void window.dispatchEvent(new Event("online")));
    await waitFor(() => expect(result.current.waiting).toEqual([]));
    store.server = before;
    const told = said.slice(-2).map((line) => JSON.parse(line.slice("POST ".length)));
    expect(told.map((body) => [body.strikes[0].club, body.wedges])).toEqual([
      ["own:1", [wedge("gap"), wedge("sand")]],
      ["own:0", [wedge("sand")]],
    ]);
  });

  it("stay on the screen until an answer of the server holds them", async () => {
    network(() => json({ taken: 1 }));
    reload.mockImplementationOnce(() => Promise.reject(new Error("no answer")));
    const { result } = renderHook(useStrikeQueue, { wrapper });
    act(() => result.current.take(strike("a")));
    await waitFor(() => expect(reload).toHaveBeenCalledTimes(1));
    await waitFor(() => expect(result.current.waiting).toEqual([]));
    expect(result.current.ahead).toHaveLength(1);
    expect(result.current.pause).toBeNull();
    act(() => result.current.take(strike("b")));
    await waitFor(() => expect(reload).toHaveBeenCalledTimes(2));
    await waitFor(() => expect(result.current.ahead).toEqual([]));
  });

  it("outlive a lost connection and a closed page, and are sent with the same id", async () => {
    network(() => null);
    const first = renderHook(useStrikeQueue, { wrapper });
    act(() => first.result.current.take(strike("a")));
    await waitFor(() => expect(first.result.current.pause).toBe("offline"));
    expect(first.result.current.waiting).toHaveLength(1);
    expect((await waitingActs("me", "f")).map((kept) => kept.act.kind)).toEqual(["take"]);
    expect(await waitingActs("me", "another fitting")).toEqual([]);
    first.unmount();
    network(() => json({ taken: 1 }));
    const second = renderHook(useStrikeQueue, { wrapper });
    await waitFor(async () => expect(await waitingActs("me", "f")).toEqual([]));
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
    await waitFor(async () => expect(await waitingActs("me", "f")).toEqual([]));
  });

  it("are not lost when the page closes before the database has them", async () => {
    network(() => json({ taken: 1 }));
    const row = { id: "slip", fitting: "f", at: 5, act: { kind: "take", strike: strike("a") } };
    localStorage.setItem("oblatus-act-slip", JSON.stringify(row));
    const { result } = renderHook(useStrikeQueue, { wrapper });
    await waitFor(() => expect(said.filter((line) => line.includes('"id":"a"'))).toHaveLength(1));
    await waitFor(async () => expect(await waitingActs("me", "f")).toEqual([]));
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
    await waitFor(() => expect(result.current.pause).toBe("offline"));
    const [first] = await waitingActs("me", "f");
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

  it("wait in a list of their own when the server refuses them, to be mended or let go", async () => {
    const refusal = {
      code: "invalid",
      message: "",
      faults: [{ field: "strikes.0.carry_m", message: "must be less", value: "" }],
    };
    network((_, body) => (body.includes('"carry_m":999') ? json(refusal, 422) : json({ taken: 1 })));
    const { result, unmount } = renderHook(useStrikeQueue, { wrapper });
    act(() => {
      result.current.take(strike("bad", 999));
      result.current.take(strike("good"));
      result.current.take(strike("worse", 999));
    });
    await waitFor(() => expect(result.current.refused).toHaveLength(2));
    await waitFor(() => expect(result.current.waiting).toEqual([]));
    expect(result.current.refused[0]?.refusal).toEqual({ message: "carry must be less", field: "carry_m" });
    unmount();
    const later = renderHook(useStrikeQueue, { wrapper });
    await waitFor(() => expect(later.result.current.refused).toHaveLength(2));
    const [bad, worse] = later.result.current.refused;
    if (!bad || !worse) throw new Error("two were refused");
    act(() => later.result.current.again(bad, { kind: "take", strike: strike("bad", 90) }));
    act(() => later.result.current.discard(worse));
    await waitFor(() => expect(said.at(-1)).toContain('"carry_m":90'));
    await waitFor(async () => expect(await waitingActs("me", "f")).toEqual([]));
    expect(later.result.current.refused).toEqual([]);
  });

  it.each([400, 401, 403, 409, 413, 429, 500, 502, 503, 507])(
    "are kept on an answer of %i, and sent when the server takes them",
    async (status) => {
      let down = true;
      network(() => (down ? new Response("<html>no</html>", { status }) : json({ taken: 1 })));
      const { result } = renderHook(useStrikeQueue, { wrapper });
      act(() => result.current.take(strike("a")));
      await waitFor(() => expect(result.current.pause).not.toBeNull());
      expect(result.current.pause).toBe(status === 401 ? "signed_out" : "busy");
      expect(result.current.waiting).toHaveLength(1);
      expect(await waitingActs("me", "f")).toHaveLength(1);
      down = false;
      act(() => void window.dispatchEvent(new Event("online")));
      await waitFor(() => expect(result.current.waiting).toEqual([]));
    },
  );

  it("do not wait behind another strike that the server cannot take now", async () => {
    network((_, body) => (body.includes('"id":"odd"') ? json({}, 400) : json({ taken: 1 })));
    const { result } = renderHook(useStrikeQueue, { wrapper });
    act(() => {
      result.current.take(strike("odd"));
      result.current.tell("odd", { note: "wet" });
      result.current.take(strike("good"));
    });
    await waitFor(() => expect(result.current.waiting).toHaveLength(2));
    expect(said.some((line) => line.includes('"id":"good"'))).toBe(true);
    expect(said.some((line) => line.startsWith("PATCH"))).toBe(false);
  });

  it("belong to whoever took them: another person neither sees nor sends them", async () => {
    network(() => null);
    const mine = renderHook(useStrikeQueue, { wrapper });
    act(() => mine.result.current.take(strike("a")));
    await waitFor(() => expect(mine.result.current.pause).toBe("offline"));
    mine.unmount();
    said.length = 0;
    network(() => json({ taken: 1 }));
    const other = renderHook(useStrikeQueue, { wrapper: as("somebody else") });
    await new Promise((done) => setTimeout(done, 150));
    expect(other.result.current.waiting).toEqual([]);
    expect(said).toEqual([]);
    expect(await waitingActs("me", "f")).toHaveLength(1);
  });

  it("are taken out and put back in their turn of the history", async () => {
    network(() => json({ taken: 1 }));
    const { result } = renderHook(useStrikeQueue, { wrapper });
    act(() => result.current.undo("a"));
    expect(did).toHaveBeenLastCalledWith({ kind: "strike", id: "a", out: true });
    act(() => redo({ kind: "strike", id: "a", out: true }, true));
    await waitFor(() => expect(said).toEqual(["DELETE ", "POST "]));
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
});
