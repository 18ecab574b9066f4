import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Card } from "../../api/client";
import { UnitsProvider } from "../../app/context";
import { show } from "../../testing/show";
import { Drills } from "./Drills";
import { Lies } from "./Lies";

const lie = (change: object) => ({
  key: "chip|home", shot_name: "basic chip", ground: "home", code: "own:0", club: "old gap", loft_deg: 50, opened: "square",
  light: "clean", ball_mm: 0, ball_words: "in the middle", ball_doubt_mm: 12, lean_deg: 6, lean_change_deg: 1,
  lean_words: "a little more than usual", weight: 0.6, stance_mm: 300, stance_open_deg: 0, clock: "7:30", speed_mps: 10,
  carry_m: 9.144, on_green_m: 1.8, run_m: 6, sole_mm: -20, finish: "low", strokes: 2.5, risk: "seldom heavy", safer: null,
  cautions: [], ...change,
}); // biome-ignore format: one line a few things
const lies = (every: object[], units = { distance: "m", speed: "mps" } as const) =>
  show(
    <UnitsProvider value={units as Parameters<typeof UnitsProvider>[0]["value"]}>
      <Lies lies={every as unknown as Card["lies"]} outlines={{}} hand="right" />
    </UnitsProvider>,
    { draft: { player: { name: "somebody" } } },
  );
const fact = (name: string) =>
  screen.getByText(name, { selector: "dt" }).parentElement?.querySelector("dd")?.textContent;

it("no lie, no page; the first is shown until another is pressed", () => {
  const { container } = lies([]);
  expect(container.querySelector("section")).toBeNull();
  cleanup();
  lies([lie({}), lie({ key: "sand|home", shot_name: "greenside sand", clock: "10:30" })]);
  expect(fact("swing")).toContain("7:30");
  fireEvent.click(screen.getByRole("button", { name: /greenside sand/ }));
  expect(fact("swing")).toContain("10:30");
  expect(screen.getByRole("button", { name: /greenside sand/ }).getAttribute("aria-pressed")).toBe("true");
});

it("distances are the reader's, and where to land it says on which side of the green's edge", () => {
  lies([lie({})], { distance: "yd", speed: "mph" } as never);
  expect(fact("land it")).toMatch(/^10\u00a0yd, 2\u00a0yd onto the green; 7\u00a0yd of run$/);
  cleanup();
  lies([lie({ on_green_m: -2 })]);
  expect(fact("land it")).toContain("2\u00a0m short of the green");
});

it("the safer shot is told with what it costs, cautions stand below, feet only where they turn", () => {
  lies([
    lie({
      safer: { club: "pitching wedge", opened: "square", strokes: 2.62 },
      cautions: ["Hard ground: mind the wrist."],
      stance_open_deg: 12,
    }),
  ]);
  expect(fact("risk")).toContain("Safer: pitching wedge, square, 0.12 strokes more");
  expect(screen.getByText("Hard ground: mind the wrist.")).toBeTruthy();
  expect(fact("stance")).toContain("feet 12° to the left");
  cleanup();
  lies([lie({})]);
  expect(fact("stance")).not.toContain("feet");
});

it("a drill says what it is worth, how to pass it and when to stop; without a beat none is told", () => {
  const drill = {
    key: "line", name: "Line in the sand", worth_strokes_round: 0.214, why: "the entry strays most", set_up: "Draw a line.",
    do: "Brush it.", mark: 7, count: 10, score: "Count those on it.", beat: null, stop: "Stop when the back complains.",
    drawing: { kind: "line", marks: [] },
  }; // biome-ignore format: one line a few things
  const card = { practice_weeks: 4, drills: [drill] } as unknown as Card;
  show(<Drills card={card} />);
  const item = within(screen.getByRole("listitem"));
  expect(item.getByText(/0.21 strokes a round with half the scatter; the entry strays most/)).toBeTruthy();
  expect(item.getByText("Pass 7 of 10.")).toBeTruthy();
  expect(item.queryByText(/beats a minute/)).toBeNull();
  expect(item.getByText("Stop when the back complains.")).toBeTruthy();
  cleanup();
  const { container } = show(<Drills card={{ ...card, drills: [] }} />);
  expect(container.querySelector("section")).toBeNull();
});
