import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { Recommendation } from "../../api/client";
import { TABLES } from "../../api/tables";
import { UnitsProvider } from "../../app/context";
import { server, show } from "../../testing/show";
import { Front } from "./Front";
import { Options } from "./Options";
import { Situations } from "./Situations";
import { Weights } from "./Weights";

const edit = vi.fn();
const editAll = vi.fn();
beforeEach(() => {
  edit.mockClear();
  editAll.mockClear();
});
type Units = Parameters<typeof UnitsProvider>[0]["value"];
const METRES = { distance: "m", speed: "mps" } as Units;
const YARDS = { distance: "yd", speed: "mph" } as Units;
const shown = (part: React.ReactNode, draft: object, units = METRES, more: object = {}) =>
  show(<UnitsProvider value={units}>{part}</UnitsProvider>, { draft, edit, editAll, ...more });

const option = (lofts_deg: number[], change: object = {}) => ({
  lofts_deg, gaps_m: [9.144, 18.288], chosen: false, changes: ["bend the gap", "buy a lob"], gives_up: "The lob.", ...change,
}); // biome-ignore format: one line a few things

it("a number of wedges is taken at a press, and a ladder typed by hand is let go with it", () => {
  const lofts = { options: [option([56]), option([50, 56.5], { chosen: true })] } as unknown as Recommendation["lofts"];
  const draft = { player: { name: "somebody", wedge_count: null }, choices: { ladder_deg: [52], pinned: [] } };
  shown(<Options lofts={lofts} />, draft, YARDS);
  const [one, two] = screen.getAllByRole("button") as [HTMLElement, HTMLElement];
  expect([one, two].map((button) => button.getAttribute("aria-pressed"))).toEqual(["false", "true"]);
  expect(two.textContent).toContain("Two wedges50°  56.5°gaps 10, 20 yd");
  expect(one.textContent).toContain("bend the gap; buy a lobThe lob.");
  fireEvent.click(one);
  expect(editAll).toHaveBeenLastCalledWith({
    player: { name: "somebody", wedge_count: 1 },
    choices: { ladder_deg: null, pinned: [] },
  });
});

const chosen = (parts: Record<string, number>) => ({ chosen: { penalty: 1.234, parts } }) as unknown as Recommendation["lofts"]; // biome-ignore format: one line

it("every part of the penalty that the engine knows is named and weighed, and usual weights come back at a press", () => {
  const keys = TABLES.ladder_parts.map(({ key }) => key);
  const parts = Object.fromEntries(keys.map((key, n) => [key, n / 10]));
  const factors = { [keys[1] ?? ""]: 2 };
  shown(<Weights lofts={chosen(parts)} />, { choices: { ladder_factors: factors, pinned: [] } });
  const here = within(screen.getByRole("region", { name: "What counts" }));
  expect(here.getByRole("heading").textContent).toBe("What counts: unevenness 1.23, lower is better");
  const sliders = here.getAllByRole("slider");
  expect(sliders.map((slider) => slider.getAttribute("aria-label"))).toEqual(
    TABLES.ladder_parts.map(({ name }) => `Weight of ${name}`),
  );
  expect(sliders.map((slider) => slider.getAttribute("aria-valuenow"))).toEqual(
    keys.map((_, n) => (n === 1 ? "2" : "1")),
  );
  fireEvent.keyDown(sliders[0] as HTMLElement, { key: "ArrowRight" });
  expect(edit.mock.lastCall?.[1].ladder_factors).toMatchObject({ [keys[0] ?? ""]: 1.25, [keys[1] ?? ""]: 2 });
  fireEvent.click(here.getByRole("button", { name: "Usual weights" }));
  expect(Object.values(edit.mock.lastCall?.[1].ladder_factors)).toEqual(keys.map(() => 1));
  expect(Object.keys(edit.mock.lastCall?.[1].ladder_factors)).toEqual(keys);
});

it("nothing is put back while every weight is the usual one", () => {
  shown(<Weights lofts={chosen({})} />, { choices: { ladder_factors: {} } });
  expect(screen.getByRole("button", { name: "Usual weights" }).hasAttribute("disabled")).toBe(true);
});

const scenario = (shot: string, change: object = {}) => ({
  key: `${shot}|home`, shot, shot_name: shot, kind: "short", hole_m: 18.288, room_m: 9.144, behind_m: 4.572, short: "fringe",
  ...change,
}); // biome-ignore format: one line a few things
const RESULT = {
  scenarios: [scenario("chip"), scenario("chip", { key: "chip|away" }), scenario("pitch"), scenario("full", { kind: "full" })],
} as unknown as Recommendation; // biome-ignore format: one line

it("a shot has one row for all grounds, full ones none; a typed distance is kept in metres beside the others", () => {
  const other = { shot: "sand", hole_m: 9, room_m: 5, behind_m: 8, short: "sand" };
  shown(<Situations result={RESULT} />, { choices: { layouts: [other] } }, YARDS);
  const rows = within(screen.getByRole("table", { name: "Where the hole is" }))
    .getAllByRole("row")
    .slice(1);
  expect(rows.map((row) => row.firstElementChild?.textContent)).toEqual(["chip", "pitch"]);
  expect((screen.getByLabelText("chip, to the hole") as HTMLInputElement).value).toBe("20");
  expect(rows[0]?.textContent).toContain("assumed");
  fireEvent.change(screen.getByLabelText("chip, to the hole"), { target: { value: "30" } });
  const [kept, typed] = (edit.mock.lastCall as [string, { layouts: [object, { hole_m: number }] }])[1].layouts;
  expect(kept).toEqual(other);
  expect(typed).toMatchObject({ shot: "chip", room_m: 9.144, behind_m: 4.572, short: "fringe" });
  expect(typed.hole_m).toBeCloseTo(27.432, 6);
});

it("a typed layout says that it is, shows its fault, and goes at a press", () => {
  const typed = { shot: "chip", hole_m: 12, room_m: 20, behind_m: 8, short: "rough" };
  const faults = [{ field: "choices.layouts.0", message: "the room reaches past the ball", value: null }];
  shown(<Situations result={RESULT} />, { choices: { layouts: [typed] } }, METRES, { faults });
  const row = screen.getByRole("row", { name: /^chip/ });
  expect(row.textContent).toContain("typed");
  expect(row.textContent).toContain("the room reaches past the ball");
  fireEvent.change(screen.getByLabelText("chip, short lies"), { target: { value: "sand" } });
  expect(edit.mock.lastCall?.[1].layouts).toEqual([{ ...typed, short: "sand" }]);
  fireEvent.click(within(row).getByRole("button", { name: "Usual" }));
  expect(edit.mock.lastCall?.[1].layouts).toEqual([]);
  expect(within(screen.getByRole("row", { name: /^pitch/ })).getByRole("button", { name: "Usual" }).hasAttribute("disabled")).toBe(true); // biome-ignore format: one line
});

const ladder = (lofts_deg: number[], change: object = {}) => ({
  lofts_deg, cost: 0.33, uncovered_share: 0.25, changes: ["bend"], left_out: [], chosen: false, ...change,
}); // biome-ignore format: one line a few things

it("the ladders that none beats are asked for once the fitting is saved, and one is taken as typed lofts", async () => {
  const front = [ladder([56]), ladder([50, 56], { chosen: true, left_out: ["old lob"] })];
  const asked = server({ "GET ladders": { front } });
  const draft = { choices: { ladder_deg: null } };
  const saved = { server: { id: "f", revision: 2, strikes_key: "k", recommendation: {} } };
  shown(<Front />, draft, METRES, { ...saved, saveState: "saving" });
  await new Promise((done) => setTimeout(done, 20));
  expect(asked).toEqual([]);
  cleanup();
  shown(<Front />, draft, METRES, { ...saved, saveState: "saved" });
  await waitFor(() => expect(screen.getByRole("table")).toBeTruthy());
  const [cheap, here] = screen.getAllByRole("row").slice(1) as [HTMLElement, HTMLElement];
  expect(cheap.textContent).toContain("56°0.3325\u00a0%");
  expect(here.textContent).toContain("bend; leave out old lob");
  expect(within(here).getByRole("button").hasAttribute("disabled")).toBe(true);
  fireEvent.click(within(cheap).getByRole("button", { name: "Take" }));
  expect(edit).toHaveBeenLastCalledWith("choices", { ladder_deg: [56] });
});
