import { beforeEach, expect, it, vi } from "vitest";
import type { Edited } from "../api/client";
import { deedsOf, forgetStayingDeeds } from "../offline/deeds";
import { afterSave, type Draft, draftedFittings, forgetDrafts, keepDraft, keptDraft, leftDraft, NO_DRAFT, sectionOf } from "./drafts"; // biome-ignore format: one line

const { open } = vi.hoisted(() => ({ open: { now: ["me"] as string[] | null } }));
vi.mock("../offline/tab", () => ({ tabName: () => "me", openTabs: async () => open.now }));
const FITTING = "0a0a0a0a-0000-4000-8000-000000000001";
const player = (name: string) => ({ name }) as never;
const draft = (name = "typed"): Draft => ({ ...NO_DRAFT, revision: 3, base: { player: player("was") }, mine: { player: player(name) } }); // biome-ignore format: one line
const as = (tab: string, one: Draft = draft()) =>
  localStorage.setItem(`oblatus-draft-ada-${FITTING}-${tab}`, JSON.stringify(one));

beforeEach(() => {
  localStorage.clear();
  open.now = ["me"];
});

it("a draft is there after a reload, and gone once it is empty", () => {
  keepDraft("ada", FITTING, draft());
  expect(keptDraft("ada", FITTING)).toEqual(draft());
  expect(keptDraft("bo", FITTING)).toEqual(NO_DRAFT);
  keepDraft("ada", FITTING, NO_DRAFT);
  expect(localStorage.length).toBe(0);
});

it("what a closed tab left is taken over once, that of an open one is not", async () => {
  as("closed");
  as("open");
  open.now = ["me", "open"];
  expect(await leftDraft("ada", FITTING)).toEqual(draft());
  expect(await leftDraft("ada", FITTING)).toBeNull();
  expect(localStorage.getItem(`oblatus-draft-ada-${FITTING}-open`)).not.toBeNull();
});

it("rubbish in the browser's store is no draft", async () => {
  localStorage.setItem(`oblatus-draft-ada-${FITTING}-me`, "{half");
  expect(keptDraft("ada", FITTING)).toEqual(NO_DRAFT);
  localStorage.setItem(`oblatus-draft-ada-${FITTING}-old`, JSON.stringify({ revision: 2 }));
  expect(await leftDraft("ada", FITTING)).toBeNull();
});

it("drafts are counted by fitting and forgotten by fitter", () => {
  as("one");
  as("two");
  localStorage.setItem(`oblatus-draft-bo-${FITTING}-x`, JSON.stringify(draft()));
  sessionStorage.setItem(`${deedsOf("ada")}x`, "[]");
  sessionStorage.setItem(`${deedsOf("bo")}x`, "[]");
  expect(draftedFittings("ada")).toEqual([FITTING]);
  forgetDrafts("ada");
  expect(Object.keys(localStorage)).toEqual([`oblatus-draft-bo-${FITTING}-x`]);
  expect(Object.keys(sessionStorage)).toEqual([`${deedsOf("bo")}x`]);
});

it("deeds that earlier versions left for good give their room to drafts; this tab's stay", () => {
  as("me");
  localStorage.setItem(`${deedsOf("ada")}x`, "[]");
  sessionStorage.setItem(`${deedsOf("ada")}me`, "[]");
  forgetStayingDeeds();
  expect(Object.keys(localStorage)).toEqual([`oblatus-draft-ada-${FITTING}-me`]);
  expect(sessionStorage.getItem(`${deedsOf("ada")}me`)).toBe("[]");
});

it.each([["player.delivery.lean_deg.mean", "player"], ["bag", "bag"], ["players", undefined], ["", undefined]])(
  "the path %s lies in the section %s", (path, section) => expect(sectionOf(path)).toBe(section),
); // biome-ignore format: a row

const reply = (change: object = {}) =>
  ({ revision: 4, refused: [], conflicts: [], draft: {}, document: { player: player("saved") }, ...change }) as unknown as Edited; // biome-ignore format: one line

it("what was taken is let go, what was typed meanwhile goes on from it", () => {
  const sent = { player: player("typed") };
  const still = { ...draft(), mine: sent };
  expect(afterSave(still, reply(), sent, {})).toMatchObject({ revision: 4, base: {}, mine: {}, attempts: [] });
  const more = draft("typed more");
  const after = afterSave(more, reply(), sent, {});
  expect(after.mine).toEqual({ player: { name: "typed more" } });
  expect(after.base).toEqual({ player: { name: "typed" } });
});

it("pins that were answered go by the wedges that are saved, those made meanwhile by the ones of then", () => {
  const [mine, then, saved] = [{ pinned: ["a"] }, [{ name: "then" }], [{ name: "saved" }]] as never[];
  const sent = { choices: mine } as never;
  const document = { choices: {}, bag: { wedges: saved } };
  const before: Draft = { ...NO_DRAFT, base: { choices: {} as never }, mine: sent, wedges: then };
  const after = (draft: object, refused: object[] = [{ field: "choices.pinned", message: "no" }]) =>
    afterSave(before, reply({ refused, draft, document }), sent, {}).wedges;
  expect(after({ choices: mine })).toBe(saved);
  expect(after({}, [])).toBeUndefined();
  const meanwhile = { ...before, mine: { choices: { pinned: ["b"] } as never } };
  expect(afterSave(meanwhile, reply({ document }), sent, {}).wedges).toBe(then);
});

it("a refused field stays as it was typed, against what is saved, and is not sent again as it is", () => {
  const sent = { player: player("wrong") };
  const held = {};
  const answer = reply({ refused: [{ field: "player.name", message: "no" }], draft: { player: { name: "wrong" } } });
  const after = afterSave({ ...draft(), mine: sent }, answer, sent, held);
  expect(after.mine).toEqual({ player: { name: "wrong" } });
  expect(after.base).toEqual({ player: { name: "saved" } });
  expect(held).toEqual({ player: { name: "wrong" } });
});

it("a conflict stays one until it is chosen: what it was made on is kept", () => {
  const sent = { player: player("mine") };
  const answer = reply({ conflicts: [{ path: "player.name" }], draft: { player: { name: "mine" } } });
  const after = afterSave({ ...draft(), mine: sent }, answer, sent, {});
  expect(after.base).toEqual({ player: { name: "was" } });
  expect(after.mine).toEqual({ player: { name: "mine" } });
});

it("what was taken beside a refused field is what goes on from there is made on", () => {
  const bag = (loft: number, bounce: number) => ({ bag: { wedges: [{ loft, bounce }] } }) as never as Draft["mine"];
  const sent = bag(5, 1);
  const now = { ...NO_DRAFT, revision: 3, base: bag(55, 10), mine: bag(56, 11) };
  const refused = [{ field: "bag.wedges.0.loft", message: "40 to 68" }];
  const after = afterSave(now, reply({ refused, draft: sent, document: bag(55, 1) }), sent, {});
  expect(after.base).toEqual(bag(55, 1));
  expect(after.mine).toEqual(bag(56, 11));
});

it("a fault that lies in no section holds everything that was sent", () => {
  const sent = { player: player("mine") };
  const answer = reply({ refused: [{ field: "", message: "no" }], draft: { player: { name: "mine" } } });
  expect(afterSave({ ...draft(), mine: sent }, answer, sent, {}).mine).toEqual({ player: { name: "mine" } });
});
