import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { Build } from "../../api/client";
import { TABLES } from "../../api/tables";
import { UnitsProvider } from "../../app/context";
import { RememberedUnder } from "../../app/useRemembered";
import { server, show } from "../../testing/show";
import { ClubSheet } from "./ClubSheet";
import type { Tick } from "./useBuild";

type Club = Build["clubs"][number];

const onChange = vi.fn();
const onTick = vi.fn();
beforeEach(() => {
  onChange.mockClear();
  onTick.mockClear();
});
const OUTLINE = [
  [0, 0],
  [10, -3],
  [20, 0],
];
const head = (change: object) => ({
  outline_mm: OUTLINE,
  loft_deg: 56,
  bounce_deg: 10,
  lie_deg: 64,
  edge_height_mm: 3.26,
  mass_g: 300,
  ...change,
});
const WISH = {
  loft_deg: 55,
  lie_deg: null,
  lie_mark_mm: null,
  bent_before_deg: [1.5, -0.25],
  grind: { heel_mm: 0, toe_mm: 0, back_fraction: 0, back_deg: 0, bevel_mm: 0, bevel_deg: 0 },
  shaft: null,
  grip: null,
  length_in: null,
  swing_weight: null,
  read: { loft_deg: null, lie_deg: null, swing_weight: null, typed: false },
} as unknown as Club["wish"];
const club = (change: object = {}) =>
  ({
    name: "Hanger 56",
    action: "bend",
    before: head({}),
    after: head({ loft_deg: 55, bounce_deg: 9 }),
    built: null,
    wish: WISH,
    usual: { shaft: "s1", grip: "g1", length_in: 35.25 },
    unmatched: false,
    lie_asked_deg: null,
    lie_by_deg: 0,
    start_m: 0,
    removed_g: 0,
    deepest_mm: 0,
    worth_strokes_round: null,
    bend_left_deg: 0.5,
    on_shelf: null,
    weeks: 0,
    notes: [],
    as_built: [],
    operations: [],
    ...change,
  }) as unknown as Club;
const SHEET = {
  shafts: [
    { code: "s1", name: "steel 110", mass_g: 110, stock: 2 },
    { code: "s2", name: "steel 95", mass_g: 95, stock: 0 },
  ],
  grips: [{ code: "g1", name: "cord", mass_g: 50, stock: 9 }],
  seen_at_m: 90,
  own: false,
  order: null,
} as unknown as Build;
const sheet = (one: Club, wish = one.wish, ticks: Tick[] | null = null, whole: object = {}, units = { distance: "m", speed: "mps" }) =>
  show(
    <UnitsProvider value={units as Parameters<typeof UnitsProvider>[0]["value"]}>
      <ClubSheet
        place={1}
        club={one}
        wish={wish}
        sheet={{ ...SHEET, ...whole }}
        ticks={ticks}
        onTick={onTick}
        onChange={onChange}
      />
    </UnitsProvider>,
  ); // biome-ignore format: one line of arguments
const field = (label: string) => screen.getByLabelText(label) as HTMLInputElement;
const leave = (input: HTMLInputElement, value: string) => {
  fireEvent.change(input, { target: { value } });
  fireEvent.blur(input);
};

it("the head as it comes and as built stand in one table, to the tenth that a gauge reads", () => {
  sheet(club());
  const rows = within(screen.getByRole("table", { name: "Hanger 56, before and after" })).getAllByRole("row");
  const cells = rows.map((row) => within(row).getAllByRole(row === rows[0] ? "columnheader" : "cell"));
  expect(cells[1]?.map((cell) => cell.textContent)).toEqual(["as it comes", "56", "10", "64", "3.3", "300.0"]);
  expect(cells[2]?.map((cell) => cell.textContent)).toEqual(["as built", "55", "9", "64", "3.3", "300.0"]);
});

it("a figure out of the bench's bounds is said and not passed on; the bounds are the program's", () => {
  const { low, high } = (TABLES.build as Record<string, { low: number; high: number }>).heel_mm ?? { low: 0, high: 0 };
  sheet(club());
  fireEvent.change(field("Heel off"), { target: { value: String(high + 1) } });
  expect(onChange).not.toHaveBeenCalled();
  expect(screen.getByText(`${low} to ${high} mm`)).toBeTruthy();
  fireEvent.change(field("Heel off"), { target: { value: "0,5" } });
  expect(onChange).toHaveBeenLastCalledWith({ grind: { ...WISH.grind, heel_mm: 0.5 } });
});

it("figures of the bench are shown as they are, quarters too, and a share in percent as on Bag", () => {
  const grind = { ...WISH.grind, back_fraction: 0.35 };
  const wish = {
    ...WISH,
    loft_deg: 55.25,
    shaft: "s2",
    grip: "g1",
    length_in: 35.25,
    grind,
  } as unknown as Club["wish"];
  sheet(club({ bend_left_deg: 0.75 }), wish);
  expect([field("Loft").value, field("Length").value, field("Back relief, share").value]).toEqual([
    "55.25",
    "35.25",
    "35",
  ]);
  expect(screen.getByText(/^0\.75° of bending is left/)).toBeTruthy();
  fireEvent.change(field("Back relief, share"), { target: { value: "51" } });
  expect(screen.getByText("0 to 50 %")).toBeTruthy();
  expect(onChange).not.toHaveBeenCalled();
  fireEvent.change(field("Back relief, share"), { target: { value: "20" } });
  expect(onChange).toHaveBeenLastCalledWith({ grind: { ...grind, back_fraction: 0.2 } });
});

it("bends of before are signs and numbers between blanks, passed on when the field is left", () => {
  sheet(club());
  expect(field("Bent before").value).toBe("1.5 −0.25");
  fireEvent.change(field("Bent before"), { target: { value: "1 x" } });
  fireEvent.blur(field("Bent before"));
  expect(screen.getByText("as 1 −0.5")).toBeTruthy();
  leave(field("Bent before"), "1 9");
  expect(screen.getByText(/^each −\d+ to \d+°$/)).toBeTruthy();
  leave(field("Bent before"), "1 ".repeat(TABLES.most.bends_before + 1));
  expect(screen.getByText(`at most ${TABLES.most.bends_before}`)).toBeTruthy();
  expect(onChange).not.toHaveBeenCalled();
  leave(field("Bent before"), "−1; 0,5");
  expect(onChange).toHaveBeenLastCalledWith({ bent_before_deg: [-1, 0.5] });
  leave(field("Bent before"), "");
  expect(onChange).toHaveBeenLastCalledWith({ bent_before_deg: [] });
});

it("a mark on the board may be none, and one off the board is said", () => {
  sheet(club());
  leave(field("Board mark, toe +"), "-3.5");
  expect(onChange).toHaveBeenLastCalledWith({ lie_mark_mm: -3.5 });
  onChange.mockClear();
  leave(field("Board mark, toe +"), "900");
  expect(onChange).not.toHaveBeenCalled();
  leave(field("Board mark, toe +"), "");
  expect(onChange).toHaveBeenLastCalledWith({ lie_mark_mm: null });
});

it("with another shaft the club is put together: grip and length come with it; as it is takes all of them back", () => {
  sheet(club());
  expect(screen.queryByLabelText("Grip")).toBeNull();
  fireEvent.change(field("Shaft"), { target: { value: "s2" } });
  expect(onChange).toHaveBeenLastCalledWith({ shaft: "s2", grip: "g1", length_in: 35.25 });
  cleanup();
  const wish = { ...WISH, shaft: "s2", grip: "g1", length_in: 35 } as unknown as Club["wish"];
  sheet(club(), wish);
  fireEvent.change(field("Length"), { target: { value: "35.5" } });
  expect(onChange).toHaveBeenLastCalledWith({ shaft: "s2", grip: "g1", length_in: 35.5 });
  fireEvent.change(field("Shaft"), { target: { value: "" } });
  expect(onChange).toHaveBeenLastCalledWith({ shaft: null, grip: null, length_in: null, swing_weight: null });
});

it("a swing weight is a letter and a figure, however it is typed", () => {
  const wish = { ...WISH, shaft: "s2", grip: "g1", length_in: 35 } as unknown as Club["wish"];
  sheet(club(), wish);
  leave(field("Wished swing weight"), "heavy");
  expect(screen.getByText("as D4")).toBeTruthy();
  expect(onChange).not.toHaveBeenCalled();
  leave(field("Wished swing weight"), "d4,5");
  expect(onChange).toHaveBeenLastCalledWith({ swing_weight: "D4.5" });
});

it("what a lie does to the start is said in the reader's units and by its side", () => {
  sheet(club({ lie_by_deg: 1, start_m: -1.5, lie_asked_deg: 65 }), WISH, null, {}, { distance: "yd", speed: "mph" });
  expect(screen.getByText(/The mark asks for a lie of 65°/).textContent).toContain(
    "Lie 1° upright moves the start 1.6\u00a0yd left at 98\u00a0yd.",
  );
  cleanup();
  sheet(club({ lie_by_deg: -0.5, start_m: 0.8 }));
  expect(screen.getByText(/flat moves the start/).textContent).toContain("0.8\u00a0m right at 90\u00a0m");
});

it("a head on the shelf is counted, one set aside for this set is said so", () => {
  sheet(club({ on_shelf: 2, weeks: 1 }));
  expect(screen.getByText(/of bending is left/).textContent).toContain("2 on the shelf. Ready in 1 week.");
  cleanup();
  sheet(club({ on_shelf: 1, weeks: 3 }), WISH, null, { order: { heads: ["Hanger 56"] } });
  const words = screen.getByText(/of bending is left/).textContent;
  expect(words).toContain("set aside for this set");
  expect(words).not.toContain("on the shelf");
  expect(words).toContain("Ready in 3 weeks.");
});

const operation = (change: object) => ({
  key: "bend",
  words: "Bend to 55°",
  wanted: 55,
  tolerance: 0.25,
  unit: "degrees",
  caution: "",
  ...change,
});

it("work has its figure and tolerance, is ticked at the bench, and says who did it once the server has it", () => {
  const operations = [operation({}), operation({ key: "grip", words: "New grip", wanted: null, tolerance: null, caution: "Solvent: air the room." })]; // biome-ignore format: one line
  sheet(club({ operations }));
  const work = () => screen.getByRole("list", { name: "Hanger 56, order of work" });
  expect(work().textContent).toContain("Bend to 55° 55 ± 0.25°");
  expect(work().textContent).toContain("Solvent: air the room.");
  expect(within(work()).queryByRole("checkbox")).toBeNull();
  cleanup();
  const ticks = [{ operation: 0, by: "Ines", at: "2026-10-03T09:30:00Z" }, { operation: 1 }] as unknown as Tick[];
  sheet(club({ operations }), WISH, ticks);
  expect(work().textContent).toContain("Ines, 3 Oct 2026");
  const boxes = within(work()).getAllByRole("checkbox") as HTMLInputElement[];
  expect(boxes.map((box) => box.checked)).toEqual([true, true]);
  fireEvent.click(boxes[1] as HTMLInputElement);
  expect(onTick).toHaveBeenLastCalledWith(1, false);
});

it("a figure read off the built club says how far off the sheet it is, and whether that is outside", () => {
  const as_built = [
    { key: "loft_deg", read: 55.4, wanted: 55, over: 0.15 },
    { key: "lie_deg", read: 64.1, wanted: 64, over: 0 },
  ];
  sheet(club({ as_built }));
  expect(screen.getByText(/Loft °: 0.4 off the sheet, 0.15 outside its tolerance/)).toBeTruthy();
  expect(screen.getByText(/Lie °: 0.1 off the sheet, within its tolerance/)).toBeTruthy();
  const read = screen.getByRole("group", { name: "Hanger 56 as built" });
  leave(within(read).getByLabelText("Read: loft") as HTMLInputElement, "55.25");
  expect(onChange).toHaveBeenLastCalledWith({ read: { ...WISH.read, loft_deg: 55.25, typed: true } });
});

it("a gauge's reading of the built club is taken to the hundredth and is not called typed", async () => {
  const device = {
    kind: "gauge", available: true, wanted: true, state: "live", device: "stand-in gauge", simulated: true,
    target: "built:1", taken: 1, refused: 0, last_refusal: "",
  }; // biome-ignore format: one line a few things
  const summary = {
    kind: "gauge", target: "built:1", count: 1, aside: 0, simulated: true, words: "",
    figures: [{ key: "loft_deg", mean: 55.127, spread: 0, count: 1 }, { key: "lie_deg", mean: 64.5, spread: 0, count: 1 }],
  }; // biome-ignore format: one line a few things
  const reading = { id: "a", kind: "gauge", target: "built:1", figures: { loft_deg: 55.127, lie_deg: 64.5 }, simulated: true, set_aside: null }; // biome-ignore format: one line
  server({ "GET devices": { devices: [device] }, "GET readings": { readings: [reading], summaries: [summary] } });
  sheet(club(), WISH, null, { own: true });
  fireEvent.click(await screen.findByRole("button", { name: "Use them" }));
  expect(onChange).toHaveBeenLastCalledWith({
    read: { ...WISH.read, loft_deg: 55.13, lie_deg: 64.5, typed: false },
  });
});

it("what is wrong in a club is of that club alone, also where a sheet has two of one head", () => {
  const two = () =>
    show(
      <UnitsProvider value={{ distance: "m", speed: "mps" }}>
        <RememberedUnder value="sheet-">
          {[0, 1].map((place) => (
            <ClubSheet
              key={place}
              place={place}
              club={club()}
              wish={WISH}
              sheet={SHEET}
              ticks={null}
              onTick={onTick}
              onChange={onChange}
            />
          ))}
        </RememberedUnder>
      </UnitsProvider>,
    );
  two();
  const texts = (label: string) => screen.getAllByLabelText<HTMLInputElement>(label).map((one) => one.value);
  const [loft, read] = [texts("Loft")[1], texts("Read: loft")[1]];
  leave(screen.getAllByLabelText<HTMLInputElement>("Loft")[0] as HTMLInputElement, "99");
  leave(screen.getAllByLabelText<HTMLInputElement>("Read: loft")[0] as HTMLInputElement, "560");
  cleanup();
  two();
  expect([texts("Loft"), texts("Read: loft")]).toEqual([
    ["99", loft],
    ["560", read],
  ]);
});
