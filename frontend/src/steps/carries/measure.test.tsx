import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { Carries, Cell, Strike } from "../../api/client";
import { figureOf, TABLES } from "../../api/tables";
import { UnitsProvider } from "../../app/context";
import { newStrike } from "../../strikes/newStrike";
import type { StrikeQueue } from "../../strikes/useStrikeQueue";
import { show, showAlone } from "../../testing/show";
import { CellPanel } from "./CellPanel";
import { keyOf, OwnSwings } from "./OwnSwings";
import { PlayerNumbers } from "./PlayerNumbers";

const queue = {
  waiting: [], ahead: [], refused: [], pause: null, failure: null, take: vi.fn(), tell: vi.fn(), setAside: vi.fn(),
  undo: vi.fn(), putBack: vi.fn(), prove: vi.fn(), tick: vi.fn(), again: vi.fn(), discard: vi.fn(),
} as unknown as StrikeQueue; // biome-ignore format: one line a few things
const onMove = vi.fn();
const onFull = vi.fn();
const edit = vi.fn();
beforeEach(() => {
  for (const one of [queue.take, queue.setAside, queue.undo, onMove, onFull, edit]) vi.mocked(one).mockClear();
});
type Units = Parameters<typeof UnitsProvider>[0]["value"];
const METRES = { distance: "m", speed: "mps" } as Units;
const YARDS = { distance: "yd", speed: "mph" } as Units;
const CELL = {
  club: "own:0", name: "gap", loft_deg: 50, swing: "full", swing_name: "full", from_what: "the usual model, nothing of yours",
} as unknown as Cell; // biome-ignore format: one line
const strike = (id: string, change: Partial<Strike> = {}): Strike => ({
  ...newStrike("own:0", 50, "full"), id, carry_m: 90, ...change,
}); // biome-ignore format: one line
const cellPanel = (strikes: Strike[], units = METRES, outliers: object[] = []) => (
  <UnitsProvider value={units}>
    <CellPanel
      cell={CELL}
      strikes={strikes}
      outliers={outliers as Carries["outliers"]}
      queue={queue}
      onMove={onMove}
      onFull={onFull}
    />
  </UnitsProvider>
);
const panel = (strikes: Strike[] = [], units = METRES, outliers: object[] = []) =>
  show(cellPanel(strikes, units, outliers));
const ball = () => screen.getByLabelText("Carry of the next ball, gap, full") as HTMLInputElement;
const press = (key: string) => fireEvent.keyDown(ball(), { key });
const type = (text: string) => fireEvent.change(ball(), { target: { value: text } });

it("a figure and Enter take a ball of the club and swing, in the reader's unit, and the field waits for the next", () => {
  panel([], YARDS);
  expect(document.activeElement).toBe(ball());
  expect(screen.getByText("No ball yet. The usual model, nothing of yours.")).toBeTruthy();
  type("100,5");
  press("Enter");
  const taken = vi.mocked(queue.take).mock.calls[0]?.[0];
  expect(taken).toMatchObject({ club: "own:0", loft_deg: 50, swing: "full", origin: "typed", simulated: false });
  expect(taken?.carry_m).toBeCloseTo(91.897, 3);
  expect(ball().value).toBe("");
});

it("what is no carry is said in the reader's unit and not taken", () => {
  const { low, high } = figureOf(TABLES.strike, "carry_m");
  panel();
  type("far");
  press("Enter");
  expect(screen.getByText("must be a number")).toBeTruthy();
  type(String(high + 1));
  press("Enter");
  expect(screen.getByText(`${low} to ${high} m`)).toBeTruthy();
  expect(queue.take).not.toHaveBeenCalled();
  press("Escape");
  expect(ball().value).toBe("");
  expect(screen.queryByText(`${low} to ${high} m`)).toBeNull();
});

it("a strike whose carry nobody measured is no ball of the cell, and says so", () => {
  panel([strike("carried"), strike("entry", { carry_m: null, entry_mm: -30 })]);
  expect(ball().placeholder).toBe("ball 2 of 5");
  expect(screen.getByText("no carry")).toBeTruthy();
  expect(screen.queryByText(/^0\.0/)).toBeNull();
});

it("the last ball that is wanted moves on to the next cell; one more does not", () => {
  const wanted = TABLES.stations[0]?.wanted ?? 0;
  const hit = (count: number) => Array.from({ length: count }, (_, n) => strike(`s${n}`));
  panel([...hit(wanted - 1), strike("aside", { set_aside: "thin" })]);
  expect(ball().placeholder).toBe(`ball ${wanted} of ${wanted}`);
  type("90");
  press("Enter");
  expect(onFull).toHaveBeenCalledTimes(1);
  cleanup();
  panel(hit(wanted));
  expect(ball().placeholder).toBe(`ball ${wanted + 1}`);
  type("90");
  press("Enter");
  expect(onFull).toHaveBeenCalledTimes(1);
});

it("M asks why the last ball does not count and takes a figure for the reason; U takes the last ball out", () => {
  panel([strike("first"), strike("last")]);
  type("m");
  expect(ball().value).toBe("");
  press("m");
  expect(screen.getByRole("alert").textContent).toContain("Why does the strike of 90.0\u00a0m not count?");
  fireEvent.keyDown(window, { key: "2" });
  expect(queue.setAside).toHaveBeenCalledWith("last", "heavy");
  expect(screen.queryByText(/Why/)).toBeNull();
  press("u");
  expect(queue.undo).toHaveBeenCalledWith("last");
  cleanup();
  panel();
  press("m");
  press("u");
  expect(screen.queryByText(/Why/)).toBeNull();
  expect(queue.undo).toHaveBeenCalledTimes(1);
});

it("a strike that somebody takes out while it is asked about is asked about no longer", () => {
  const shown = showAlone(cellPanel([strike("first"), strike("last", { carry_m: 91 })], YARDS));
  press("m");
  expect(screen.getByRole("alert").textContent).toContain("Why does the strike of 99.5\u00a0yd not count?");
  shown.again(cellPanel([strike("first")], YARDS));
  expect(screen.queryByText(/Why/)).toBeNull();
  fireEvent.keyDown(window, { key: "2" });
  expect(queue.setAside).not.toHaveBeenCalled();
});

it("arrows choose the cell; in a figure left and right move within it", () => {
  panel();
  for (const key of ["ArrowUp", "ArrowDown", "ArrowLeft", "ArrowRight"]) press(key);
  expect(onMove.mock.calls).toEqual([[-1, 0], [1, 0], [0, -1], [0, 1]]); // biome-ignore format: one line
  onMove.mockClear();
  type("90");
  press("ArrowLeft");
  press("ArrowRight");
  press("ArrowDown");
  expect(onMove.mock.calls).toEqual([[1, 0]]);
});

it("of a ball that is far off the others that is said; else what more was measured, or where it is from", () => {
  const words = "40 % short of its club and swing";
  panel(
    [strike("off"), strike("more", { spin_rpm: 9500, launch_deg: 28.04, ball_speed_mps: 33.5 }), strike("plain")],
    METRES,
    [{ strike: "off", share: -0.4, deviations: 6, words }],
  );
  const said = within(screen.getByRole("list", { name: "Strikes" })).getAllByRole("listitem");
  expect(said.map((one) => one.querySelector("span")?.textContent)).toEqual([
    words,
    "9500\u00a0rpm, 28.0° launch, 33.5\u00a0m/s ball",
    "typed",
  ]);
});

it("a ball set aside says why and can count again; a simulated one says so", () => {
  panel([strike("a", { set_aside: "thin", simulated: true })]);
  const one = screen.getByRole("listitem");
  expect(one.textContent).toContain("simulated thin");
  fireEvent.click(within(one).getByRole("button", { name: "Count it" }));
  expect(queue.setAside).toHaveBeenCalledWith("a", null);
  fireEvent.click(within(one).getByRole("button", { name: "Take out the strike of 90.0\u00a0m" }));
  expect(queue.undo).toHaveBeenCalledWith("a");
});

const MEASURING = { temperature_c: 18, altitude_m: 91.44, swings: [] as object[] };
const own = (measuring: object = MEASURING, units = METRES, faults: object[] = []) =>
  show(
    <UnitsProvider value={units}>
      <OwnSwings />
    </UnitsProvider>,
    { draft: { measuring }, edit, faults },
  );

it("a swing of the fitter's own gets a key from its name, in whatever letters; an empty name is none", () => {
  const names = ["Hip high!", "  knee – high ", "Größe", "бедро", "a name of four-and-twenty, and more"];
  const there = ["own_1", "own_3"].map((key) => ({ key, name: key }));
  expect(names.map((name) => keyOf(name, there))).toEqual([
    "hip_high",
    "knee_high",
    "gro_e",
    "own_2",
    "a_name_of_four_and_twent",
  ]);
  const long = { key: "half_swing_choked_down_t", name: "half swing choked down to steel" };
  expect(keyOf("half swing choked down to red", [long])).toBe("half_swing_choked_dow_1");
  expect(keyOf(long.name, [long])).toBe(long.key);
  own();
  const add = screen.getByRole("button", { name: "Add a swing" });
  fireEvent.change(screen.getByLabelText("Another swing"), { target: { value: "  " } });
  expect(add.hasAttribute("disabled")).toBe(true);
  fireEvent.change(screen.getByLabelText("Another swing"), { target: { value: " Hip high " } });
  fireEvent.keyDown(screen.getByLabelText("Another swing"), { key: "Enter" });
  expect(edit).toHaveBeenLastCalledWith("measuring", {
    ...MEASURING,
    swings: [{ key: "hip_high", name: "Hip high", speed_share: 0.8, extra_lean_deg: 0 }],
  });
});

it("a swing's share is typed in per cent, it goes at a press, and a fifth is not offered", () => {
  const swings = ["a", "b", "c", "d"].map((key) => ({ key, name: key, speed_share: 0.8, extra_lean_deg: 0 }));
  own({ ...MEASURING, swings });
  expect(screen.queryByLabelText("Another swing")).toBeNull();
  fireEvent.change(screen.getByLabelText("b, % of full speed"), { target: { value: "72.5" } });
  expect(edit.mock.lastCall?.[1].swings[1]).toMatchObject({ key: "b", speed_share: 0.725 });
  fireEvent.click(screen.getByRole("button", { name: "Remove the swing c" }));
  expect(edit.mock.lastCall?.[1].swings.map((one: { key: string }) => one.key)).toEqual(["a", "b", "d"]);
});

it("altitude is the reader's, and what the server says of the swings stands at their field", () => {
  own(MEASURING, YARDS, [{ field: "measuring.swings", message: "two swings have this key", value: "" }]);
  const altitude = screen.getByLabelText("Altitude") as HTMLInputElement;
  expect(altitude.value).toBe("100");
  fireEvent.change(altitude, { target: { value: "200" } });
  expect(edit.mock.lastCall?.[1].altitude_m).toBeCloseTo(182.88, 6);
  expect(screen.getByText("two swings have this key")).toBeTruthy();
});

it("an unknown says what tells it, as the server has it, in the reader's unit", () => {
  const parameter = (change: object) => ({
    name: "head speed", unit: "m/s", value: 35, error: 0.5, usual: 33, usual_error: 3, told_by: "strikes", ...change,
  }); // biome-ignore format: one line
  const parameters = [parameter({}), parameter({ name: "friction", unit: "", value: 0.41, usual: 0.4, told_by: "both" }), parameter({ name: "lean", unit: "degrees", told_by: "usual" })]; // biome-ignore format: one line
  show(
    <UnitsProvider value={YARDS}>
      <PlayerNumbers carries={{ used: 12, parameters } as unknown as Carries} />
    </UnitsProvider>,
  );
  const rows = within(screen.getByRole("table", { name: "This player, by 12 strikes" })).getAllByRole("row");
  expect(rows[1]?.textContent).toContain("78.3 ± 1.1");
  expect(rows.slice(1).map((row) => row.lastElementChild?.textContent)).toEqual([
    "the strikes",
    "both",
    "what is usual",
  ]);
  expect(rows[2]?.textContent).toContain("0.410");
});
