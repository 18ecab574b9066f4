import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { expect, it } from "vitest";
import { Clubs } from "./Clubs";
import { Lie } from "./Lie";
import type { Opened, Page } from "./usePage";

const CARD = {
  hand: "right",
  clubs: [{ code: "own:0", name: "gap", loft_deg: 50.5, bounce_deg: 8 }],
  rules: ["Into the wind: one club more for every 10 km/h."],
  rows: [
    {
      loft_deg: 50.5,
      swing: "full",
      swing_name: "full",
      carry_m: 91.44,
      low_m: 82.3,
      high_m: 100.6,
      source: "measured",
    },
    { loft_deg: 50.5, swing: "900", swing_name: "9:00", carry_m: 60, low_m: 50, high_m: 70, source: "modelled" },
    { loft_deg: 46, swing: "full", swing_name: "full", carry_m: 105, low_m: 95, high_m: 115, source: "assumed" },
  ],
  temperature_c: 18,
  ball: "",
  outlines_mm: {},
  lies: [],
};
const page = (change: object = {}, card: object = {}) =>
  ({ distance: "yd", studio: "a studio", summary: [], card: { ...CARD, ...card }, ...change }) as unknown as Page;
const DATES = [{ kind: "lofts", on: "2027-03-01", words: "Have the lofts read" }] as unknown as Opened["dates"];
const clubs = (one = page()) => render(<Clubs page={one} token="abc" expires="2027-11-28T10:00:00Z" dates={DATES} />);

it("carries are in the page's unit with 8 of 10, and each says whether it stands on strikes", () => {
  clubs();
  const rows = within(screen.getByRole("table", { name: "Carries in yd" }))
    .getAllByRole("row")
    .slice(1);
  expect(rows.map((row) => [...row.children].map((cell) => cell.textContent))).toEqual([
    ["50.5° full", "100", "90 to 110", ""],
    ["50.5° 9:00", "66", "55 to 77", "model"],
    ["46° full", "115", "104 to 126", "assumed"],
  ]);
  expect(screen.getByText(/In still air at 18 °C/).textContent).toBe("In still air at 18\u00a0°C.");
});

it("days are written out, the calendar is kept up to date by its link, and why is left out where nothing is known", () => {
  clubs();
  expect(within(screen.getByRole("table", { name: "Dates" })).getByRole("row").textContent).toBe(
    "1 March 2027Have the lofts read",
  );
  expect(screen.getByText(/This page holds until/).textContent).toBe(
    "From a studio. This page holds until 28 November 2027.",
  );
  expect(screen.getByRole("link", { name: "Keep them up to date" }).getAttribute("href")).toBe(
    `webcal://${location.host}/api/page/abc/dates.ics`,
  );
  expect(screen.queryByRole("heading", { name: "Why these" })).toBeNull();
  cleanup();
  clubs(page({ summary: ["The sand wedge digs."] }, { ball: "a soft ball" }));
  expect(screen.getByRole("heading", { name: "Why these" })).toBeTruthy();
  expect(screen.getByText(/In still air/).textContent).toContain("with a soft ball");
});

const lie = (key: string, change: object = {}) => ({
  key, shot_name: "chip", ground: "home", code: "own:0", club: "gap", loft_deg: 50.5, opened: "square", ball_mm: 0,
  ball_words: "in the middle", lean_deg: 8, lean_change_deg: 2, lean_words: "2° more lean than you do", weight: 0.63,
  stance_mm: 250, stance_open_deg: 0, clock: "7:30 to 4:30", carry_m: 6.4, sole_mm: -34, finish: "low", strokes: 2.5,
  light: "careful", safer: null, cautions: [], ...change,
}); // biome-ignore format: one line a few things
const fact = (name: string) => screen.getByText(name).parentElement?.querySelector("dd")?.textContent;

it("a lie is chosen from those that are faced, and says how it is played in the page's unit", () => {
  const lies = [lie("chip|home"), lie("sand|home", { shot_name: "sand", sole_mm: 12, carry_m: 9.144 })];
  render(<Lie page={page({}, { lies })} />);
  expect(screen.getByRole("heading").textContent).toBe("chip, home");
  expect(fact("club")).toBe("50.5° gap, square");
  expect(fact("handle")).toBe("8° ahead: 2° more lean than you do");
  expect(fact("weight")).toBe("63\u00a0% forward, stays there");
  expect(fact("land it")).toBe("7\u00a0yd on, sole 34\u00a0mm behind the ball's middle");
  fireEvent.change(screen.getByRole("combobox"), { target: { value: "sand|home" } });
  expect(screen.getByRole("heading").textContent).toBe("sand, home");
  expect(fact("land it")).toBe("10\u00a0yd on, sole 12\u00a0mm ahead of the ball's middle");
});

it("the safer shot says what it costs or wins, cautions follow, and a page without lies says so", () => {
  const safer = (strokes: number) => ({ club: "pitching wedge", opened: "square", strokes, light: "clear" });
  render(<Lie page={page({}, { lies: [lie("a", { safer: safer(2.62), cautions: ["Mind the lip."] })] })} />);
  expect(screen.getByText(/Safer/).textContent).toBe("careful. Safer: the pitching wedge, square, 0.1 strokes more");
  expect(screen.getByText("Mind the lip.")).toBeTruthy();
  cleanup();
  render(<Lie page={page({}, { lies: [lie("a", { safer: safer(2.3) })] })} />);
  expect(screen.getByText(/Safer/).textContent).toContain("0.2 strokes less");
  cleanup();
  render(<Lie page={page()} />);
  expect(screen.getByText("No lie is on this page.")).toBeTruthy();
});
