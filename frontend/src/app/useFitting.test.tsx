import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
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
  ({ id: "f1", revision, document: { ...document, ...change }, problem: [], steps: {} }) as unknown as Fitting;

type Sent = { revision: number; player?: { handicap: number }; grounds?: unknown };
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
  vi.stubGlobal("fetch", async (request: Request) => {
    const body = JSON.parse(await request.text()) as Sent;
    sent.push(body);
    const next = answers.shift();
    if (next) return next(body);
    const { revision, ...sections } = body;
    return ok(fitting(revision + 1, sections));
  });
});

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const player = (handicap: number) => ({ ...document.player, handicap }) as unknown as Fitting["document"]["player"];

describe("useFitting", () => {
  it("shows an edit at once, saves it, and carries the new revision on the next one", async () => {
    const { result } = renderHook(() => useFitting(fitting(1)));
    act(() => result.current.edit("player", player(11)));
    expect(result.current.draft.player.handicap).toBe(11);
    await waitFor(() => expect(result.current.saveState).toBe("saved"));
    act(() => result.current.edit("player", player(12)));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent.map((s) => s.revision)).toEqual([1, 2]);
    await waitFor(() => expect(result.current.server.revision).toBe(3));
    expect(localStorage.length).toBe(0);
  });

  it("joins what was typed while a request was out into the next one, in order", async () => {
    let release = () => {};
    answers.push(
      (body) =>
        new Promise((done) => {
          release = () => done(ok(fitting(2, { player: body.player })));
        }),
    );
    const { result } = renderHook(() => useFitting(fitting(1)));
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
    const { result } = renderHook(() => useFitting(fitting(1)));
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
    const first = renderHook(() => useFitting(fitting(1)));
    act(() => first.result.current.edit("player", player(7)));
    await waitFor(() => expect(first.result.current.saveState).toBe("offline"));
    first.unmount();
    const second = renderHook(() => useFitting(fitting(1)));
    expect(second.result.current.draft.player.handicap).toBe(7);
    await waitFor(() => expect(second.result.current.server.document.player.handicap).toBe(7));
    expect(localStorage.length).toBe(0);
  });

  it("does not save over another screen until someone decides", async () => {
    answers.push(
      () =>
        new Response(JSON.stringify({ code: "conflict", message: "", revision: 5 }), {
          status: 409,
          headers: { "Content-Type": "application/json" },
        }),
    );
    const { result } = renderHook(() => useFitting(fitting(1)));
    act(() => result.current.edit("player", player(7)));
    await waitFor(() => expect(result.current.saveState).toBe("conflict"));
    await new Promise((done) => setTimeout(done, 300));
    expect(sent).toHaveLength(1);
  });

  it("takes edits back one by one", async () => {
    const { result } = renderHook(() => useFitting(fitting(1)));
    act(() => result.current.edit("player", player(11)));
    act(() => result.current.edit("player", player(12)));
    act(() => result.current.undo());
    expect(result.current.draft.player.handicap).toBe(11);
    act(() => result.current.undo());
    expect(result.current.draft.player.handicap).toBe(10);
    expect(result.current.canUndo).toBe(false);
    await waitFor(() => expect(result.current.server.document.player.handicap).toBe(10));
  });
});
