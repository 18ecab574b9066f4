import { act, renderHook, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Fitting } from "../api/client";
import { useFitting } from "./useFitting";

const document = {
  format: "oblatus.fitting",
  version: 1,
  player: { name: "A", handicap: 10 },
  grounds: [{ name: "home", share: 1 }],
  bag: { other_clubs: 10 },
  choices: { ladder_deg: null, pinned: [] },
  rack: null,
};

const fitting = (revision: number, change: object = {}) =>
  ({
    id: "f1",
    revision,
    document: { ...document, ...change },
    problem: [],
    steps: {},
    refused: [],
    conflicts: [],
    draft: {},
  }) as unknown as Fitting;

const inputs = (initial: Fitting, open = true) => ({ initial, fitter: "me", open });

type Sent = {
  revision: number;
  edit_id: string;
  player?: { handicap: number };
  grounds?: unknown;
  base: { player?: { handicap: number } };
  attempts: { edit_id: string; sections: { player: { handicap: number } } }[];
  settled: { path: string; theirs: unknown }[];
  wedges: unknown;
};
let sent: Sent[] = [];
let answers: ((body: Sent) => Response | Promise<Response>)[] = [];

const ok = (body: unknown) =>
  new Response(JSON.stringify(body), { status: 200, headers: { "Content-Type": "application/json" } });
const refuse = (field: string) =>
  new Response(
    JSON.stringify({ code: "invalid", message: "", faults: [{ field, message: "must be less", value: "99" }] }),
    {
      status: 422,
      headers: { "Content-Type": "application/json" },
    },
  );

beforeEach(() => {
  sent = [];
  answers = [];
  localStorage.clear();
  sessionStorage.clear();
  vi.stubGlobal("fetch", async (request: Request) => {
    const body = JSON.parse(await request.text()) as Sent;
    sent.push(body);
    const next = answers.shift();
    if (next) return next(body);
    const { revision, player, grounds } = body;
    return ok(fitting(revision + 1, { ...(player && { player }), ...(grounds ? { grounds } : {}) }));
  });
});

const drafts = () => Object.keys(localStorage).filter((name) => name.startsWith("oblatus-draft-"));

const player = (handicap: number) => ({ ...document.player, handicap }) as unknown as Fitting["document"]["player"];

/** The field that was typed into is left. */
const document_left = () => void window.document.dispatchEvent(new Event("focusout"));

describe("useFitting", () => {
  it("shows an edit at once, saves it, and carries the new revision on the next one", async () => {
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => result.current.edit("player", player(11)));
    expect(result.current.draft.player.handicap).toBe(11);
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    act(() => result.current.edit("player", player(12)));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent.map((s) => s.revision)).toEqual([1, 2]);
    await waitFor(() => expect(result.current.server.revision).toBe(3));
    expect(drafts()).toEqual([]);
  });

  it("sends an edit as it is made, before the page is drawn anew", async () => {
    let asked = 0;
    const answer = globalThis.fetch;
    vi.stubGlobal("fetch", (request: Request) => {
      asked += 1;
      return answer(request);
    });
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => {
      result.current.edit("player", player(11));
      expect(asked).toBe(1);
    });
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    expect(asked).toBe(1);
  });

  it("sends an edit after the act that was made before it, whatever came of that", async () => {
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    let refused = (_: Error) => {};
    act(() => result.current.goAfter(new Promise((_, reject) => (refused = reject))));
    act(() => result.current.goAfter(Promise.resolve()));
    act(() => result.current.edit("player", player(11)));
    act(() => result.current.edit("player", player(12)));
    await new Promise((done) => setTimeout(done, 100));
    expect(sent).toEqual([]);
    expect(result.current.saveState).toBe("waiting");
    await act(async () => refused(new Error("not kept")));
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    expect(sent.map((s) => s.player?.handicap)).toEqual([12]);
  });

  it("waits for an act that is not answered no longer than ten seconds", async () => {
    vi.useFakeTimers();
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => result.current.goAfter(new Promise(() => {})));
    act(() => result.current.edit("player", player(11)));
    await act(() => vi.advanceTimersByTimeAsync(9_900));
    expect(sent).toEqual([]);
    await act(() => vi.advanceTimersByTimeAsync(200));
    expect(sent).toHaveLength(1);
    vi.useRealTimers();
  });

  it("sends all that one act changes in one request", async () => {
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    const grounds = [{ name: "home", share: 0.5 }] as unknown as Fitting["document"]["grounds"];
    act(() => result.current.editAll({ player: player(11), grounds }));
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    expect(sent).toHaveLength(1);
    expect(sent[0]).toMatchObject({ player: { handicap: 11 }, grounds });
    act(() => result.current.undo());
    expect(result.current.draft).toMatchObject({ player: { handicap: 10 }, grounds: document.grounds });
    expect(result.current.canUndo).toBe(false);
    act(() => result.current.redo());
    expect(result.current.draft).toMatchObject({ player: { handicap: 11 }, grounds });
  });

  it("tells by the places of which wedges its pins go: those that are saved, or those that come with them", async () => {
    const bag = (...names: string[]) => ({ wedges: names.map((name) => ({ name })) }) as never;
    const pins = (code: string) => ({ ...document.choices, pinned: [{ loft_deg: 50, code }] }) as never;
    answers = [1, 2, 3].map(() => (body) => ok(fitting(body.revision + 1, { bag: bag("lob"), ...body })));
    const { result } = renderHook(() => useFitting(inputs(fitting(1, { bag: bag("gap", "lob") }))));
    act(() => result.current.edit("player", player(11)));
    await waitFor(() => expect(sent).toHaveLength(1));
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    act(() => result.current.adopt(fitting(9, { bag: bag("lob") })));
    act(() => result.current.edit("choices", pins("own:0")));
    await waitFor(() => expect(sent).toHaveLength(2));
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    act(() => result.current.editAll({ bag: bag("gap"), choices: pins("own:1") }));
    await waitFor(() => expect(sent).toHaveLength(3));
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    act(() => result.current.undo());
    await waitFor(() => expect(sent).toHaveLength(4));
    expect(sent.map(({ wedges }) => wedges)).toEqual([null, [{ name: "lob" }], [{ name: "gap" }], [{ name: "lob" }]]);
  });

  it("joins what was typed while a request was out into the next one, in order", async () => {
    let release = () => {};
    answers.push(
      (body) =>
        new Promise((done) => {
          release = () => done(ok(fitting(2, { player: body.player })));
        }),
    );
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => result.current.edit("player", player(11)));
    await waitFor(() => expect(sent).toHaveLength(1));
    act(() => result.current.edit("player", player(12)));
    act(() => result.current.edit("player", player(13)));
    expect(sent).toHaveLength(1);
    act(() => release());
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]).toMatchObject({ revision: 2, player: { handicap: 13 } });
  });

  it("keeps a refused section on the screen and does not hold the others back", async () => {
    answers.push(() => refuse("player.handicap"));
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => result.current.edit("player", player(99)));
    await waitFor(() => expect(result.current.saveState).toBe("refused"));
    expect(result.current.draft.player.handicap).toBe(99);
    expect(result.current.faults[0]?.field).toBe("player.handicap");
    act(() => result.current.edit("grounds", [] as unknown as Fitting["document"]["grounds"]));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]?.player).toBeUndefined();
    await waitFor(() => expect(result.current.saveState).toBe("refused"));
    act(() => result.current.edit("player", player(9)));
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    expect(result.current.faults).toEqual([]);
  });

  it("keeps edits in the browser while nobody answers, and a new page finds them", async () => {
    answers.push(() => Promise.reject(new TypeError("no network")));
    const first = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => first.result.current.edit("player", player(7)));
    await waitFor(() => expect(first.result.current.saveState).toBe("offline"));
    first.unmount();
    const second = renderHook(() => useFitting(inputs(fitting(1))));
    expect(second.result.current.draft.player.handicap).toBe(7);
    await waitFor(() => expect(second.result.current.server.document.player.handicap).toBe(7));
    expect(drafts()).toEqual([]);
  });

  it("goes on where the browser has no room or keeps nothing, and says that a draft is not kept", async () => {
    const full = vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    answers = [() => new Response(JSON.stringify({ message: "busy" }), { status: 503 })];
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    expect(result.current.draftKept).toBe(true);
    act(() => result.current.edit("player", player(7)));
    expect(result.current.draft.player.handicap).toBe(7);
    await waitFor(() => expect(result.current.saveState).toBe("busy"));
    expect(result.current.draftKept).toBe(false);
    act(() => void window.dispatchEvent(new Event("online")));
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    expect([result.current.server.revision, result.current.draftKept]).toEqual([2, true]);
    act(() => result.current.undo());
    expect(result.current.draft.player.handicap).toBe(10);
    full.mockRestore();
  });

  it("says what two changed, sends nothing more of it until one is chosen, and then what was seen", async () => {
    const conflict = { path: "player.handicap", name: "handicap", unit: "", mine: 7, theirs: 3, value: 3 };
    answers.push(() =>
      ok({ ...fitting(5, { player: player(3) }), conflicts: [conflict], draft: { player: player(7) } }),
    );
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => result.current.edit("player", player(7)));
    await waitFor(() => expect(result.current.saveState).toBe("conflict"));
    expect(result.current.draft.player.handicap).toBe(7);
    await new Promise((done) => setTimeout(done, 300));
    expect(sent).toHaveLength(1);
    act(() => result.current.resolve(result.current.conflicts[0] as never, "mine"));
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    expect(sent[1]).toMatchObject({ settled: [{ path: "player.handicap", theirs: 3 }], base: { player: player(10) } });
  });

  it("asks nothing about a revision that the answer to its own edit brings", async () => {
    let answer = (_: Response) => {};
    answers.push(() => new Promise<Response>((done) => (answer = done)));
    const read = vi.fn();
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => result.current.edit("player", player(7)));
    await waitFor(() => expect(sent).toHaveLength(1));
    vi.stubGlobal("fetch", read);
    const heard = result.current.reload(2); // the line is quicker than the answer
    await act(async () => {
      answer(ok(fitting(2, { player: player(7) })));
      await heard;
    });
    expect(read).not.toHaveBeenCalled();
    expect(result.current.server.revision).toBe(2);
  });

  it("takes theirs when that is chosen", async () => {
    const conflict = { path: "player.handicap", name: "handicap", unit: "", mine: 7, theirs: 3, value: 3 };
    answers.push(() =>
      ok({ ...fitting(5, { player: player(3) }), conflicts: [conflict], draft: { player: player(7) } }),
    );
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => result.current.edit("player", player(7)));
    await waitFor(() => expect(result.current.saveState).toBe("conflict"));
    act(() => result.current.resolve(result.current.conflicts[0] as never, "theirs"));
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    expect(sent[1]?.player?.handicap).toBe(3);
  });

  it("says what every edit was made on, and which one before it may have arrived", async () => {
    answers.push(() => Promise.reject(new TypeError("no network")));
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => result.current.edit("player", player(7)));
    await waitFor(() => expect(result.current.saveState).toBe("offline"));
    act(() => result.current.edit("player", player(8)));
    act(() => void window.dispatchEvent(new Event("online")));
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    const last = sent.at(-1);
    expect(last?.base.player?.handicap).toBe(10);
    expect(last?.attempts).toMatchObject([{ edit_id: sent[0]?.edit_id, sections: { player: { handicap: 7 } } }]);
    expect(last?.edit_id).not.toBe(sent[0]?.edit_id);
  });

  it.each([
    [500, "busy"],
    [429, "busy"],
    [401, "signed_out"],
    [404, "gone"],
  ])("keeps a draft on an answer of %i, and says %s, never saved", async (status, words) => {
    answers.push(() => new Response("<html>", { status }));
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => result.current.edit("player", player(7)));
    await waitFor(() => expect(result.current.saveState).toBe(words));
    expect(result.current.draft.player.handicap).toBe(7);
    expect(drafts()).toHaveLength(1);
  });

  it("tells an act that waited for an answer of the section as it is by then", () => {
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    const { edit } = result.current;
    act(() => result.current.edit("player", player(7)));
    act(() => edit("player", (now) => ({ ...now, name: "Ada" })));
    expect(result.current.draft.player).toMatchObject({ handicap: 7, name: "Ada" });
  });

  it("waits for the next try, also where the pause before sending ends as the answer comes", async () => {
    const timers = vi.spyOn(globalThis, "setTimeout");
    answers.push(() => new Response("<html>", { status: 500 }));
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => result.current.edit("player", player(7)));
    await waitFor(() => expect(result.current.saveState).toBe("busy"));
    const QUIET_MS = 25;
    const ended = timers.mock.calls.filter(([, ms]) => ms === QUIET_MS);
    expect(ended.length).toBeGreaterThan(0);
    await act(async () => {
      for (const [goOn] of ended) goOn();
    });
    expect(sent).toHaveLength(1);
    act(() => void window.dispatchEvent(new Event("online")));
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    act(() => result.current.edit("player", player(8)));
    await waitFor(() => expect(sent).toHaveLength(3));
    timers.mockRestore();
  });

  it("sends nothing while nobody is signed in, and all of it afterwards", async () => {
    const { result, rerender } = renderHook(({ open }) => useFitting(inputs(fitting(1), open)), {
      initialProps: { open: false },
    });
    act(() => result.current.edit("player", player(7)));
    await new Promise((done) => setTimeout(done, 250));
    expect(result.current.saveState).toBe("signed_out");
    expect(sent).toEqual([]);
    rerender({ open: true });
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    expect(sent).toHaveLength(1);
  });

  it("tries a reading until it is read, and has one on its way at a time", async () => {
    vi.useFakeTimers();
    const asked: ((reply: Response) => void)[] = [];
    vi.stubGlobal("fetch", () => new Promise<Response>((done) => asked.push(done)));
    const { result, unmount } = renderHook(useFitting, { initialProps: inputs(fitting(1)) });
    await act(async () => result.current.refresh());
    await act(async () => result.current.refresh());
    expect(asked).toHaveLength(1);
    asked[0]?.(new Response("{}", { status: 503 }));
    await act(() => vi.advanceTimersByTimeAsync(10));
    expect(asked).toHaveLength(2);
    asked[1]?.(new Response("{}", { status: 503 }));
    await act(() => vi.advanceTimersByTimeAsync(10));
    expect(asked).toHaveLength(2);
    await act(() => vi.advanceTimersByTimeAsync(3000));
    expect(asked).toHaveLength(3);
    asked[2]?.(ok(fitting(5)));
    await act(() => vi.advanceTimersByTimeAsync(10));
    expect(result.current.server.revision).toBe(5);
    await act(() => vi.advanceTimersByTimeAsync(60_000));
    expect(asked).toHaveLength(3);
    unmount();
    vi.useRealTimers();
  });

  it("a reading is not tried for a fitting that is gone, by nobody signed in, or on a page that was left", async () => {
    vi.useFakeTimers();
    let asked = 0;
    let status = 404;
    const body = JSON.stringify({ code: "not_found", message: "", faults: [] });
    vi.stubGlobal("fetch", async () => {
      asked += 1;
      return new Response(body, { status, headers: { "Content-Type": "application/json" } });
    });
    const { result, rerender, unmount } = renderHook(useFitting, { initialProps: inputs(fitting(1)) });
    const wait = () => act(() => vi.advanceTimersByTimeAsync(10_000));
    await act(async () => result.current.refresh());
    await wait();
    expect(asked).toBe(1);
    status = 503;
    rerender(inputs(fitting(1), false));
    await act(async () => result.current.refresh());
    await wait();
    expect(asked).toBe(1);
    rerender(inputs(fitting(1)));
    await wait();
    expect(asked).toBeGreaterThan(1);
    unmount();
    const then = asked;
    await wait();
    expect(asked).toBe(then);
    vi.useRealTimers();
  });

  it("takes back what was typed into a field at once, and does it again, also after a reload", async () => {
    const first = renderHook(() => useFitting(inputs(fitting(1))));
    for (const typed of [1, 14, 14.5]) act(() => first.result.current.edit("player", player(typed)));
    await waitFor(() => expect(first.result.current.saveState).toBe("saved"));
    first.unmount();
    const second = renderHook(() => useFitting(inputs(fitting(2, { player: player(14.5) }))));
    act(() => second.result.current.undo());
    expect(second.result.current.draft.player.handicap).toBe(10);
    expect(second.result.current.canUndo).toBe(false);
    act(() => second.result.current.redo());
    expect(second.result.current.draft.player.handicap).toBe(14.5);
  });

  it("does not take back what somebody else changed since", async () => {
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => result.current.edit("player", player(11)));
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    act(() => result.current.adopt(fitting(9, { player: player(4) })));
    act(() => result.current.undo());
    expect(result.current.draft.player.handicap).toBe(4);
    expect(result.current.undoProblem).not.toBeNull();
  });

  it("takes edits back one by one", async () => {
    const { result } = renderHook(() => useFitting(inputs(fitting(1))));
    act(() => result.current.edit("player", player(11)));
    act(document_left);
    act(() => result.current.edit("player", player(12)));
    act(() => result.current.undo());
    expect(result.current.draft.player.handicap).toBe(11);
    act(() => result.current.undo());
    expect(result.current.draft.player.handicap).toBe(10);
    expect(result.current.canUndo).toBe(false);
    await waitFor(() => expect(result.current.server.document.player.handicap).toBe(10));
  });
});
