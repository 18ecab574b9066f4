import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Proof, Recommendation, Schemas } from "../api/client";
import { Closing, ProofRuler } from "./ProofRuler/ProofRuler";
import { SetPlane } from "./SetPlane/SetPlane";
import { stepName, strokes, Verdict } from "./Verdict/Verdict";

const OUTLINE = [
  [0, 0],
  [-20, -3],
  [-10, 30],
];
const step = (heads_bought: number, gain: number, change: object = {}) =>
  ({
    kind: heads_bought ? "heads" : "bends", heads_bought, gain_strokes_round: gain, low: gain / 2, high: gain * 1.5, words: "",
    clubs: [{ code: "a", outline_mm: OUTLINE, owned: false }], turned_down: null, more_strokes_round: 0, price: null, ...change,
  }) as unknown as Schemas["StepOut"]; // biome-ignore format: a step in a few lines
const bag = step(0, 0, { kind: "bag", low: 0, high: 0 });
const leak = (situation: string, change: object = {}) => ({
  situation, name: situation, won: 0.2, club_part: 0.1, player_part: 0.3, strokes_round: 0.4, share: 0.25, grounds: ["home", "away"],
  drill: "", ...change,
}); // biome-ignore format: a leak in a few lines
const result = (change: object = {}) =>
  ({
    leaks: [leak("pitch"), leak("sand", { grounds: ["home"], won: -0.1, drill: "Line in the sand" })],
    taken_step: 1, recommended_step: 1, scenarios: [{ ground: "home" }, { ground: "away" }], ...change,
  }) as unknown as Recommendation; // biome-ignore format: a result in a few lines
const verdict = (steps: Schemas["StepOut"][], change: object = {}) => {
  const onTake = vi.fn();
  render(<Verdict result={result(change)} steps={steps} onTake={onTake} />);
  return onTake;
};
const left = (element: Element | null | undefined) => Number.parseFloat((element as HTMLElement).style.left);
const wide = (element: Element | null | undefined) => Number.parseFloat((element as HTMLElement).style.width);

it.each([[0.4, "0.40"], [-0.4, "−0.40"], [-0.001, "0.00"], [0.005, "0.01"]])("%d strokes are written %s", (value, text) =>
  expect(strokes(value)).toBe(text),
); // biome-ignore format: a row

it("every step is called by what it buys", () => {
  expect([bag, step(0, 0.1), step(1, 0.2), step(2, 0.3)].map(stepName)).toEqual([
    "today’s bag", "bends only", "one new head", "two",
  ]); // biome-ignore format: one line
});

it("each step says whether to take it, or why not, and a press takes it", () => {
  const onTake = verdict([bag, step(1, 0.6), step(2, 0.7, { turned_down: "less than a head is worth", more_strokes_round: 0.1, price: 180 })]);
  const buttons = screen.getAllByRole("button");
  expect(buttons[1]?.textContent).toContain("take this");
  expect(buttons[2]?.textContent).toContain("0.10 more: less than a head is worth · price 180");
  expect(buttons.map((one) => one.getAttribute("aria-pressed"))).toEqual(["false", "true", "false"]);
  fireEvent.click(buttons[2] as HTMLElement);
  expect(onTake).toHaveBeenCalledWith(2);
}); // biome-ignore format: one line a call

it("a step that the fitter took is called so, and the bag that is good enough is kept", () => {
  verdict([bag, step(1, 0.05)], { taken_step: 1, recommended_step: 0 });
  const buttons = screen.getAllByRole("button");
  expect(buttons[0]?.textContent).toContain("keep this");
  expect(buttons[1]?.textContent).toContain("taken by hand");
});

it("gains, ranges and leaks stand on one ruler that reaches all of them", () => {
  const { container } = render(<Verdict result={result()} steps={[bag, step(1, 0.6), step(2, 0.8)]} onTake={() => {}} />);
  const marks = [...container.querySelectorAll("ol[aria-label='What a change wins'] strong[style]")].map(left);
  expect(marks[1]).toBeCloseTo(((marks[0] ?? 0) * 0.8) / 0.6, 1);
  const ranges = [...container.querySelectorAll("[class*=range]")];
  for (const [i, range] of ranges.entries()) {
    expect(left(range)).toBeLessThan(marks[i] ?? 0);
    expect(left(range) + wide(range)).toBeGreaterThan(marks[i] ?? 0);
    expect(left(range) + wide(range)).toBeLessThanOrEqual(100);
  }
  // what a step makes worse is no bar to the left of nothing
  const bars = [...container.querySelectorAll("[data-part=won]")].slice(1);
  expect(bars.map(wide)[1]).toBe(0);
  expect(bars.every((bar) => left(bar) === 0)).toBe(true);
}); // biome-ignore format: one line a call

it("a leak says on which ground it is, or its share of the shots, and the drill against it", () => {
  verdict([bag, step(1, 0.6)]);
  const [pitch, sand] = screen.getByRole("list", { name: "Where the strokes go" }).children;
  expect(pitch?.textContent).toBe("pitch25\u00a0% of shots0.40 left");
  expect(sand?.textContent).toBe("sandhome0.40 left: Line in the sand");
});

const ball = (id: string, club: number, strokes_: number, change: object = {}) => ({
  ball: { id, club, block: club, set_aside: null, ...change }, strokes: strokes_,
}); // biome-ignore format: a ball in a line
const proof = (change: object = {}) =>
  ({
    document: { rounds: 2, candidates: [{ code: "a", name: "old sand" }, { code: "b", name: "Barrow 55" }], situations: [{ name: "pitch" }] },
    balls: [ball("1", 0, 2.5), ball("2", 0, 2.5), ball("3", 1, 2.2), ball("4", 1, 4.6, { set_aside: "misread" })],
    verdict: {
      lanes: [{ strokes: 2.5, expected: 2.6, expected_spread: 0.1 }, { strokes: null, expected: 2.4, expected_spread: 0.1 }],
      comparisons: [{ first: 0, second: 1, situation: null, expected: 0.2, expected_spread: 0.1 }],
      closing: [[5, 0.3, -0.1, 0.7], [10, 0.2, 0.05, 0.35]],
    },
    ...change,
  }) as unknown as Proof; // biome-ignore format: a proof in a few lines

it("every ball that counts is a tick, equal ones beside one another, and the mean has its figure", () => {
  const { container } = render(<ProofRuler proof={proof()} expected={false} />);
  const ticks = [...container.querySelectorAll("line[stroke-width='1.6']")];
  expect(ticks.length).toBe(3);
  const [one, two] = ticks.map((tick) => Number(tick.getAttribute("x1")));
  expect((two ?? 0) - (one ?? 0)).toBeCloseTo(4);
  expect(screen.getByText("2 balls")).toBeTruthy();
  expect(screen.getByText("1 ball")).toBeTruthy();
  expect(screen.getByText("2.50")).toBeTruthy();
  expect(container.querySelectorAll("rect[opacity]").length).toBe(0);
});

it("what was expected is drawn only where it may be seen", () => {
  const { container } = render(<ProofRuler proof={proof()} expected />);
  expect(container.querySelectorAll("rect[opacity]").length).toBe(2);
});

it("the difference closes in on a ruler that is the same on both sides", () => {
  const { container } = render(<Closing proof={proof()} expected={false} />);
  const zero = Number(container.querySelector("line[stroke-dasharray]")?.getAttribute("x1"));
  const spans = [...container.querySelectorAll("line[stroke='var(--rung)']")].map((line) => [
    Number(line.getAttribute("x1")), Number(line.getAttribute("x2")),
  ]); // biome-ignore format: one line
  expect(spans[0]?.[0]).toBeLessThan(zero);
  expect(spans[1]?.[0]).toBeGreaterThan(zero);
  expect((spans[1]?.[1] ?? 0) - (spans[1]?.[0] ?? 0)).toBeLessThan((spans[0]?.[1] ?? 0) - (spans[0]?.[0] ?? 0));
  expect(screen.getByText("old sand better")).toBeTruthy();
  expect(screen.getByText("0.20")).toBeTruthy();
  cleanup();
  const { container: none } = render(<Closing proof={proof({ verdict: { comparisons: [], closing: [] } })} expected />);
  expect(none.innerHTML).toBe("");
});

it("a club stands in the plane where it serves the middle flag and nowhere else", () => {
  const duty = (scenario: string, loft_deg: number, serves: string[]) => ({ scenario, loft_deg, bounce_deg: 8, serves });
  const scenario = (key: string, shot: string, kind: string, ground = "home") => ({
    key, shot, shot_name: shot, kind, ground, share: 0.2, wanted_bounce_low_deg: 4, wanted_bounce_high_deg: 10,
  }); // biome-ignore format: a scenario in a line or two
  const plane = {
    clubs: [
      { slot: 0, loft_deg: 50.5, situations: [duty("p", 52, ["middle"]), duty("s", 60, ["short"])] },
      { slot: 1, loft_deg: 56, situations: [duty("s", 64, ["middle", "short"]), duty("gone", 60, ["middle"])] },
    ],
    scenarios: [scenario("p", "pitch", "turf"), scenario("s", "sand_greenside", "sand")],
  } as unknown as Recommendation;
  const { container } = render(<SetPlane result={plane} leanSpreadDeg={2} />);
  expect([...container.querySelectorAll("title")].map((one) => one.textContent)).toEqual([
    "50.5°: pitch on home",
    "56°: sand_greenside on home",
  ]);
  expect(screen.getByText("home, sand")).toBeTruthy();
  const [turf, sand] = [...container.querySelectorAll("ellipse")].map((one) => one.parentElement?.getAttribute("transform"));
  const x = (text: string | null | undefined) => Number(/translate\(([\d.]+)/.exec(text ?? "")?.[1]);
  expect(x(sand)).toBeGreaterThan(x(turf));
}); // biome-ignore format: one line a call
