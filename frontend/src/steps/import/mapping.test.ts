import { expect, it } from "vitest";
import { columnOfFault, draftOf, type Look, mappingOf, unmapped, withField } from "./mapping";

const FIELDS = [
  { field: "club", label: "club", units: [] },
  { field: "carry_m", label: "carry", units: ["m", "yd"] },
  { field: "spin_rpm", label: "spin", units: ["rpm"] },
];
const look = {
  mapping: null,
  guess: {
    columns: [{ column: 2, field: "carry_m", unit: "yd" }],
    decimal: "comma",
    clubs: { PW: "pw" },
    swings: {},
  },
} as unknown as Look;

it("makes a mapping of a guess, and back", () => {
  const draft = draftOf(look, {});
  const mapping = mappingOf(draft);
  expect(mapping.columns).toEqual([{ column: 2, field: "carry_m", unit: "yd" }]);
  expect(draftOf({ ...look, mapping } as Look, {})).toEqual(draft);
});

it("gives a field to one column only, with its unit when there is but one", () => {
  const moved = withField(draftOf(look, {}), 3, "carry_m", FIELDS);
  expect(moved.uses).toEqual({ 3: { field: "carry_m", unit: null } });
  expect(withField(moved, 4, "spin_rpm", FIELDS).uses[4]).toEqual({ field: "spin_rpm", unit: "rpm" });
  expect(mappingOf(withField(moved, 3, "", FIELDS)).columns).toEqual([]);
});

it("knows the words that mean nothing yet, and the column that a fault is about", () => {
  expect(unmapped(["PW", "Driver"], { PW: "pw" })).toEqual(["Driver"]);
  const mapping = mappingOf(draftOf(look, {}));
  expect(columnOfFault("mapping.columns.0.unit", mapping)).toBe(2);
  expect(columnOfFault("mapping.club", mapping)).toBeNull();
});
