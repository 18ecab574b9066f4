import { cleanup, fireEvent, screen } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { Recommendation } from "../../api/client";
import { TABLES } from "../../api/tables";
import { UnitsProvider } from "../../app/context";
import { inFitting, show } from "../../testing/show";
import { Distances } from "./Distances";
import { LadderEditor } from "./LadderEditor";
import { Worth } from "./Worth";

const edit = vi.fn();
beforeEach(() => edit.mockClear());
const store = (choices: object, faults: object[] = []) => ({ draft: { choices }, edit, faults });
const LOFTS = {
  typed: false,
  wanted_top_deg: 58,
  chosen: { lofts_deg: [50, 54, 60], changes: ["bend the gap"], left_out: ["old lob"], gives_up: "Nothing." },
} as unknown as Recommendation["lofts"];
const loft = (n: number) => screen.getByLabelText(`Loft ${n}`) as HTMLInputElement;

it("a loft typed into the proposed ladder makes it the fitter's own, the others as proposed", () => {
  show(<LadderEditor lofts={LOFTS} />, store({ ladder_deg: null, pinned: [] }));
  expect(loft(2).value).toBe("54");
  expect(screen.getByText(/As proposed, cheapest way to it: bend the gap; leave out old lob/)).toBeTruthy();
  expect(screen.getByRole("button", { name: "Back to the proposal" }).hasAttribute("disabled")).toBe(true);
  fireEvent.change(loft(2), { target: { value: "55.5" } });
  expect(edit).toHaveBeenLastCalledWith("choices", { ladder_deg: [50, 55.5, 60], pinned: [] });
});

it("lofts are added and dropped within what a bag can hold, and given back to the proposal", () => {
  show(<LadderEditor lofts={LOFTS} />, store({ ladder_deg: [52, 58] }));
  fireEvent.click(screen.getByRole("button", { name: "Add a loft" }));
  expect(edit).toHaveBeenLastCalledWith("choices", { ladder_deg: [52, 58, 62] });
  fireEvent.click(screen.getByRole("button", { name: "Drop the last" }));
  expect(edit).toHaveBeenLastCalledWith("choices", { ladder_deg: [52] });
  fireEvent.click(screen.getByRole("button", { name: "Back to the proposal" }));
  expect(edit).toHaveBeenLastCalledWith("choices", { ladder_deg: null });
  cleanup();
  show(<LadderEditor lofts={LOFTS} />, store({ ladder_deg: [50, 54, 58, 62] }));
  expect(screen.getByRole("button", { name: "Add a loft" }).hasAttribute("disabled")).toBe(true);
  cleanup();
  show(<LadderEditor lofts={LOFTS} />, store({ ladder_deg: [56] }));
  expect(screen.getByRole("button", { name: "Drop the last" }).hasAttribute("disabled")).toBe(true);
});

it("a ladder that cannot be is said where it was typed", () => {
  const faults = [
    { field: "choices.ladder_deg", message: "must rise by 2 degrees at least" },
    { field: "choices.ladder_deg.1", message: "must be at most 64" },
  ];
  show(<LadderEditor lofts={LOFTS} />, store({ ladder_deg: [50, 70] }, faults));
  expect(screen.getByRole("alert").textContent).toBe("must rise by 2 degrees at least");
  expect(screen.getByText("must be at most 64")).toBeTruthy();
});

it("bands begin as thirds of what is within reach, whole and summing to one", () => {
  show(<Distances longest={105} />, store({ distances: null }));
  fireEvent.click(screen.getByRole("button", { name: "Set bands" }));
  const bands = edit.mock.lastCall?.[1].distances;
  expect(bands.map((one: { from_m: number; to_m: number }) => [one.from_m, one.to_m])).toEqual([
    [30, 55],
    [55, 80],
    [80, 105],
  ]);
  expect(bands.reduce((sum: number, one: { share: number }) => sum + one.share, 0)).toBeCloseTo(1);
});

it("bands are typed in the reader's unit and kept in metres", () => {
  show(
    <UnitsProvider value={{ distance: "yd", speed: "mph" }}>
      <Distances longest={105} />
    </UnitsProvider>,
    store({ distances: [{ from_m: 45.72, to_m: 91.44, share: 1 }] }),
  );
  expect((screen.getByLabelText("Band 1, from") as HTMLInputElement).value).toBe("50");
  fireEvent.change(screen.getByLabelText("Band 1, to"), { target: { value: "90" } });
  expect(edit.mock.lastCall?.[1].distances[0]).toMatchObject({ from_m: 45.72, share: 1 });
  expect(edit.mock.lastCall?.[1].distances[0].to_m).toBeCloseTo(82.296, 3);
  expect(screen.getByRole("button", { name: "Remove band 1" }).hasAttribute("disabled")).toBe(true);
  fireEvent.click(screen.getByRole("button", { name: "Another band" }));
  expect(edit.mock.lastCall?.[1].distances).toHaveLength(2);
  fireEvent.click(screen.getByRole("button", { name: "Back to the shot mix" }));
  expect(edit).toHaveBeenLastCalledWith("choices", { distances: null });
});

it("what is being typed stays with its band where another is taken out", () => {
  const bands = [30, 50, 70].map((from_m) => ({ from_m, to_m: from_m + 20, share: 0.3 }));
  const from = (n: number) => screen.getByLabelText(`Band ${n}, from`) as HTMLInputElement;
  const { again } = show(<Distances longest={105} />, store({ distances: bands }));
  const without = (n: number) =>
    again(inFitting(<Distances longest={105} />, store({ distances: bands.filter((_, i) => i !== n) })));
  fireEvent.change(from(1), { target: { value: "3o" } });
  without(0);
  expect([from(1).value, from(2).value]).toEqual(["50", "70"]);
  fireEvent.change(from(2), { target: { value: "7o" } });
  again(inFitting(<Distances longest={105} />, store({ distances: [bands[2]] })));
  expect(from(1).value).toBe("7o");
});

it("no band is added where none can begin, nor beyond as many as the server takes", () => {
  const { from_m } = TABLES.bands;
  const most = TABLES.most.bands;
  const add = (distances: object[]) => {
    cleanup();
    show(<Distances longest={105} />, store({ distances }));
    return screen.getByRole("button", { name: "Another band" });
  };
  const band = { from_m: 30, to_m: from_m.high, share: 1 };
  fireEvent.click(add([band]));
  expect(edit.mock.lastCall?.[1].distances[1]).toMatchObject({ from_m: from_m.high, to_m: from_m.high + 15 });
  expect(add([{ ...band, to_m: from_m.high + 1 }]).hasAttribute("disabled")).toBe(true);
  expect(add(Array.from({ length: most - 1 }, () => band)).hasAttribute("disabled")).toBe(false);
  expect(add(Array.from({ length: most }, () => band)).hasAttribute("disabled")).toBe(true);
});

const ECONOMY = {
  shots_a_round: 14, worth_changing: 0.15, slot: 0.1, practice: 0.05, table_scale: 1, claims_sd: 0.5, claims_low: 0.527, claims_high: 1.898,
} as unknown as Recommendation["economy"]; // biome-ignore format: one line
const head = () => screen.getByLabelText("A head must win") as HTMLInputElement;

it("a usual figure is shown as what it is until one is typed, and comes back when the field is emptied", () => {
  show(<Worth economy={ECONOMY} />, store({ economy: {} }));
  expect(head().value).toBe("");
  expect(head().placeholder).toBe("0.15");
  expect(screen.getByText(/8 of 10 come to 53 % to 190 % of what was claimed/)).toBeTruthy();
  expect(document.querySelectorAll('[data-source="assumed"]')).toHaveLength(6);
  fireEvent.change(head(), { target: { value: "0,3" } });
  expect(edit.mock.lastCall?.[1].economy).toMatchObject({ worth_changing: 0.3, slot: null, claims_sd: null });
  cleanup();
  show(<Worth economy={ECONOMY} />, store({ economy: { worth_changing: 0.3 } }));
  expect(document.querySelectorAll('[data-source="typed"]')).toHaveLength(1);
  fireEvent.change(head(), { target: { value: "" } });
  expect(edit.mock.lastCall?.[1].economy.worth_changing).toBeNull();
});
