import { act, renderHook } from "@testing-library/react";
import { expect, it } from "vitest";
import { type Entry, placeAfter, usePlace } from "./usePlace";

const gap = { name: "old gap", loft: 50 };
const sand = { name: "old sand", loft: 56 };
const lob = { name: "old lob", loft: 60 };
const BAG = [gap, sand, lob];

it("a choice goes with its entry: others leave, come, change places; its own is edited", () => {
  expect(placeAfter(BAG, 2, [sand, lob])).toBe(1);
  expect(placeAfter(BAG, 0, [lob, gap, sand])).toBe(1);
  expect(placeAfter(BAG, 1, [gap, { ...sand, name: "my sand" }, lob])).toBe(1);
  expect(placeAfter(BAG, 1, [gap, { ...sand, loft: 55 }, lob])).toBe(1);
  expect(placeAfter([{ name: "home" }, { name: "away" }], 1, [{ name: "home" }, { name: "the dunes" }])).toBe(1);
  expect(placeAfter(BAG, 2, [gap, { ...lob, loft: 60.5 }])).toBe(1);
  expect(placeAfter(BAG, 1, [gap, lob])).toBeNull();
  expect(placeAfter(BAG, 1, [gap, { name: "Barrow 55", loft: 55 }, lob]), "another in its place").toBeNull();
});

it("of two that are alike it stays with one of them", () => {
  expect(placeAfter([sand, sand, lob], 1, [sand, lob])).toBe(0);
  expect(placeAfter([sand, sand], 0, [{ ...sand, loft: 55 }, sand])).toBe(0);
});

it("one that is gone is told by its name, and chosen again once it is back", () => {
  const shown = renderHook(({ list }: { list: Entry[] }) => usePlace("club", list, 2), { initialProps: { list: BAG } });
  shown.rerender({ list: [gap, sand] });
  expect(shown.result.current).toMatchObject({ place: null, was: lob, turn: 0 });
  shown.rerender({ list: [sand] });
  shown.rerender({ list: [lob, gap, sand] });
  expect(shown.result.current).toMatchObject({ place: 0, turn: 0 });
  act(() => shown.result.current.choose(1));
  expect(shown.result.current).toMatchObject({ place: 1, was: gap, turn: 1 });
});

it("where the first takes the place of one that is gone it is chosen, and stays so", () => {
  const shown = renderHook(({ list }: { list: Entry[] }) => usePlace("club", list, 2, true), {
    initialProps: { list: BAG },
  });
  shown.rerender({ list: [gap, sand] });
  expect(shown.result.current).toMatchObject({ place: 0, was: gap, turn: 1 });
  shown.rerender({ list: [lob, sand, gap] });
  expect(shown.result.current).toMatchObject({ place: 2, was: gap, turn: 1 });
  shown.rerender({ list: [] });
  expect(shown.result.current.place).toBeNull();
});

it("one that is added and chosen at once is there with the next list", () => {
  const shown = renderHook(({ list }: { list: Entry[] }) => usePlace("club", list, 0), {
    initialProps: { list: [] as Entry[] },
  });
  expect(shown.result.current.place).toBeNull();
  act(() => shown.result.current.choose(1));
  shown.rerender({ list: [gap, sand] });
  expect(shown.result.current).toMatchObject({ place: 1, was: sand });
});
