import { describe, expect, it } from "vitest";
import { type Deed, NOTHING, withDeed } from "./acts";
import { changesOf, same, valueAt, withValue } from "./changes";

const edit = (before: unknown, after: unknown, field = "handicap"): Deed => ({
  kind: "edit",
  section: "player",
  changes: [{ path: [field], before, after }],
});
const typing = (left = false, at = 0) => ({ at, left });

describe("deeds", () => {
  it("letters typed one after another into a field are one deed, from the first to the last", () => {
    const one = withDeed(NOTHING, edit(10, 1), typing(true), 0);
    const two = withDeed(one, edit(1, 14), typing(), 100);
    expect(two.past).toEqual([edit(10, 14)]);
  });

  it.each([
    ["the field was left", edit(1, 14), typing(true), 100],
    ["a pause lay between", edit(1, 14), typing(), 5000],
    ["another field was typed into", edit("", "digs", "complaints"), typing(), 100],
    ["somebody else changed it between", edit(7, 14), typing(), 100],
    ["a strike was taken between", { kind: "strike", id: "a", out: false } as Deed, typing(), 100],
  ])("they are two when %s", (_, deed, state, now) => {
    const one = withDeed(NOTHING, edit(10, 1), typing(true), 0);
    expect(withDeed(one, deed, state, now).past).toHaveLength(2);
  });

  it("a new deed leaves nothing to be done again", () => {
    const history = { past: [], future: [edit(1, 2)] };
    expect(withDeed(history, edit(3, 4), typing(true), 0).future).toEqual([]);
  });
});

describe("changes", () => {
  const before = { name: "A", mean: { value: 1, spread: 2 }, list: [1, 2], grounds: [{ share: 1 }] };

  it("names the fields that differ, lists of another length as a whole", () => {
    const after = { name: "A", mean: { value: 3, spread: 2 }, list: [1, 2, 3], grounds: [{ share: 0.5 }] };
    expect(changesOf(before, after).map((change) => change.path)).toEqual([
      ["mean", "value"],
      ["list"],
      ["grounds", 0, "share"],
    ]);
  });

  it("puts every change back where it was", () => {
    const after = { name: "B", mean: { value: 3, spread: 0 }, list: [2, 1], grounds: [{ share: 0.5 }] };
    const changes = changesOf(before, after);
    const back = changes.reduce((value, change) => withValue(value, change.path, change.before), after);
    expect(back).toEqual(before);
    for (const change of changes) expect(valueAt(after, change.path)).toEqual(change.after);
  });
});

it("fields in another order are the same, values that differ and fields that are not there are not", () => {
  expect(same({ chip: 0.4, pitch: { a: 1, b: [1, 2] } }, { pitch: { b: [1, 2], a: 1 }, chip: 0.4 })).toBe(true);
  expect(same([1, 2], [2, 1])).toBe(false);
  expect(same({ chip: 0.4 }, { chip: 0.5 })).toBe(false);
  expect(same(undefined, null)).toBe(false);
  expect(same(undefined, undefined)).toBe(true);
});
