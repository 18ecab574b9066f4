import { act, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, expect, it } from "vitest";
import { tab } from "../offline/texts";
import { type Entry, usePlace } from "./usePlace";
import { forgetRemembered, RememberedUnder, rememberedOf, useRemembered } from "./useRemembered";
import { useSendId } from "./useSendId";

afterEach(() => forgetRemembered("fitter"));

/** Within a page of the fitter's. */
const on = (page: string) => ({
  wrapper: (within: { children: ReactNode }) => (
    <RememberedUnder value={rememberedOf("fitter", page)}>{within.children}</RememberedUnder>
  ),
});
const typing = (page: string, what = "text") =>
  renderHook(({ of }) => useRemembered(of, ""), { initialProps: { of: what }, ...on(page) });
const type = (shown: ReturnType<typeof typing>, text: string) => act(() => shown.result.current[1](text));

it("what is typed is there again after another step, on its own page alone, until it is sent", () => {
  const first = typing("a");
  type(first, "56 m");
  first.unmount();
  expect(typing("b").result.current[0]).toBe("");
  const again = typing("a");
  expect(again.result.current[0]).toBe("56 m");
  type(again, "");
  expect(typing("a").result.current[0]).toBe("");
  expect(tab.names("oblatus-typed-fitter-")).toEqual([]);
});

it("what was sent is taken away also when its answer comes after the step was left", () => {
  const first = typing("a");
  type(first, "56 m");
  first.unmount();
  const again = typing("a");
  type(first, "");
  expect(again.result.current[0]).toBe("");
});

it("every place has its own, and a change goes on from what stands there", () => {
  const shown = typing("a", "here");
  type(shown, "1");
  shown.rerender({ of: "there" });
  expect(shown.result.current[0]).toBe("");
  act(() => shown.result.current[1]((before) => `${before}2`));
  shown.rerender({ of: "here" });
  act(() => shown.result.current[1]((before) => `${before}3`));
  expect(shown.result.current[0]).toBe("13");
});

it.each([
  ['"56"', "56"],
  ["56", ""],
  ["{}", ""],
  ["[]", ""],
  ["null", ""],
  ["{", ""],
])("a page that is loaded anew takes %s up as %j", (kept, shown) => {
  const page = `loaded ${kept}`;
  tab.keep(`${rememberedOf("fitter", page)}text`, kept);
  expect(typing(page).result.current[0]).toBe(shown);
});

it("nothing of a fitter is left after they sign out, and all of another stays", () => {
  const mine = typing("a");
  type(mine, "mine");
  tab.keep(`${rememberedOf("other", "a")}text`, '"theirs"');
  act(() => forgetRemembered("fitter"));
  expect(mine.result.current[0]).toBe("");
  expect(tab.names("oblatus-typed-")).toEqual([`${rememberedOf("other", "a")}text`]);
  tab.drop(`${rememberedOf("other", "a")}text`);
});

const [gap, sand, lob] = [{ name: "gap", loft: 50 }, { name: "sand", loft: 56 }, { name: "lob", loft: 60 }]; // biome-ignore format: one line
const choosing = (list: Entry[], orFirst = false) =>
  renderHook((now) => usePlace("club", now.list, 0, orFirst), { initialProps: { list }, ...on("a") });

it("what was chosen of a list is chosen again, wherever it stands by then; one that is gone is told", () => {
  const first = choosing([gap, sand, lob]);
  expect(first.result.current.place).toBe(0);
  first.unmount();
  expect(choosing([sand, gap]).result.current.place).toBe(0); // nothing was chosen
  const shown = choosing([gap, sand, lob]);
  act(() => shown.result.current.choose(2));
  shown.rerender({ list: [gap, sand, { ...lob, name: "high" }] });
  shown.unmount();
  expect(choosing([{ ...lob, name: "high" }, gap]).result.current.place).toBe(0);
  expect(choosing([gap, sand]).result.current).toMatchObject({ place: null, was: { name: "high" } });
  expect(choosing([gap, sand], true).result.current.place).toBe(0);
});

it("one that is added and chosen at once is chosen again", () => {
  const shown = choosing([gap]);
  act(() => shown.result.current.choose(1));
  shown.rerender({ list: [gap, sand] });
  shown.unmount();
  expect(choosing([lob, gap, sand]).result.current.place).toBe(2);
});

it("what was sent before the page was loaded anew, and got no answer, goes under its id again", () => {
  const sending = () => renderHook(() => useSendId("proof"), on("a"));
  const first = sending();
  const id = first.result.current.of({ rounds: 4 });
  first.unmount();
  const again = sending();
  expect(again.result.current.of({ rounds: 4 })).toBe(id);
  act(() => again.result.current.arrived());
  again.unmount();
  expect(sending().result.current.of({ rounds: 4 })).not.toBe(id);
});
