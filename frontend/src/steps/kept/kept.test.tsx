import { screen, within } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Kept } from "../../api/client";
import { UnitsProvider } from "../../app/context";
import { show } from "../../testing/show";
import { Comparison } from "./Comparison";

const result = (change = {}) => ({
  clubs: [{ loft_deg: 54, bounce_deg: 10, name: "Barrow 54" }],
  gain_strokes_round: 0.42,
  lofts: { gaps: [{ gap_m: 9.144 }, { gap_m: 18.288 }] },
  engine_version: "3",
  ...change,
});
const kept = (change = {}) =>
  ({
    id: "k", label: "spring", created_at: "2026-04-18T10:00:00Z", engine_version: "3", result: result(), earlier: null, ...change,
  }) as unknown as Kept; // biome-ignore format: one line
const compare = (first: Kept, second: object | null, differences?: object[]) =>
  show(
    <UnitsProvider value={{ distance: "yd", speed: "mph" }}>
      <Comparison first={first} second={second as Kept["result"]} name="Now" differences={differences as never} />
    </UnitsProvider>,
  );
const line = (name: string | RegExp) =>
  within(screen.getByRole("cell", { name }).closest("tr") as HTMLElement).getAllByRole("cell").map((c) => c.textContent); // biome-ignore format: one line

it("two proposals stand club by club in the reader's unit, and what differs is marked", () => {
  compare(kept(), result({ clubs: [], gain_strokes_round: 0.4 }), []);
  expect(line("Club 1")).toEqual(["Club 1", "54°, 10° bounce, Barrow 54", "none"]);
  expect(line(/^Full gaps in still air at 25\u00a0°C/)[1]).toBe("10\u00a0yd, 20\u00a0yd");
  expect(screen.getByRole("cell", { name: "Club 1" }).closest("tr")?.getAttribute("data-on")).toBe("true");
  expect(screen.getByRole("cell", { name: "Engine" }).closest("tr")?.getAttribute("data-on")).toBe("false");
  expect(screen.getByText("No input differs.")).toBeTruthy();
});

it("one that an older engine made shows its clubs, and does not pretend to the rest", () => {
  const old = kept({
    result: null,
    earlier: { clubs: [{ loft_deg: 52, bounce_deg: 8, name: "gap" }] },
    engine_version: "2",
  });
  compare(old, result());
  expect(line("Club 1")[1]).toBe("52°, 8° bounce, gap");
  expect(line(/^Full gaps in still air at 25\u00a0°C/)[1]).toBe("not shown");
  expect(line("Saved a round, strokes")[1]).toBe("not worked out by this engine");
  expect(line("Engine")).toEqual(["Engine", "2", "3"]);
});

it("nothing to propose now is none on every line", () => {
  compare(kept(), null);
  expect(line("Saved a round, strokes")[2]).toBe("none");
  expect(line("Engine")[2]).toBe("none");
});

it("inputs that differ bear their names and units, strikes are told in words", () => {
  const one = { path: "player.pitching_wedge_carry_m", name: "full carry", unit: "m", before: 91.44, after: 100.584, before_words: "", after_words: "" }; // biome-ignore format: one line
  const strikes = { ...one, path: "strikes.count", name: "strikes", unit: "", before: 12, after: 14, after_words: "14, two set aside" }; // biome-ignore format: one line
  compare(kept(), result(), [one, strikes]);
  expect(screen.getByRole("table", { name: "Inputs that differ: 2" })).toBeTruthy();
  expect(line("full carry")).toEqual(["full carry", "100.0\u00a0yd", "110.0\u00a0yd"]);
  expect(line("strikes")).toEqual(["strikes", "12", "14, two set aside"]);
});
