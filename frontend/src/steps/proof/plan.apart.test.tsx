import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Proof, Recommendation } from "../../api/client";
import { UnitsProvider } from "../../app/context";
import { inFitting, server, show, showAlone } from "../../testing/show";
import { PlanForm } from "./PlanForm";
import { BallTable, ComparisonTable } from "./ProofTables";

const { prove } = vi.hoisted(() => ({ prove: vi.fn() }));
vi.mock("../../strikes/queue", () => ({ useQueue: () => ({ prove }) }));

const candidate = (code: string, name: string, loft_deg: number, owned = false) => ({ code, name, owned, head: { loft_deg } }); // biome-ignore format: one line
const club = (code: string, loft_deg: number, brings: number, change: object = {}) => ({
  code, name: `Club ${loft_deg}`, loft_deg, owned: false, replaces: null, brings_strokes_round: brings,
  candidates: [candidate(code, `Club ${loft_deg}`, loft_deg), candidate(`${code}b`, `Other ${loft_deg}`, loft_deg)], ...change,
}); // biome-ignore format: a club in a few lines
const scenario = (shot: string, kind: string, share: number) => ({
  key: `${shot}|home`, shot, shot_name: shot.replace("_", " "), ground: "home", kind, share,
}); // biome-ignore format: one line
const RESULT = {
  clubs: [club("HG50", 50, 0.3), club("BN55", 55, 0.6, { replaces: "old sand" }), club("own:2", 60, 0.2, { owned: true, candidates: [] })],
  scenarios: [scenario("chip", "turf", 0.2), scenario("full_swing", "full", 0.5), scenario("pitch", "turf", 0.3), scenario("sand_greenside", "sand", 0.1)],
} as unknown as Recommendation; // biome-ignore format: a club and a scenario each
const OWNED = [
  { name: "old gap", loft_deg: 50 },
  { name: "old sand", loft_deg: 56 },
  { name: "old lob", loft_deg: 60 },
];
const plan = (saveState = "saved", bag = { wedges: OWNED }, saved = bag) => {
  const asked = server({
    "GET proof-plan": { words: "20 balls with each club show a difference of 0.35 strokes a shot" },
    "POST proofs": {},
  });
  const onPlanned = vi.fn();
  show(<PlanForm result={RESULT} onPlanned={onPlanned} />, {
    draft: { bag },
    server: { id: "f", document: { bag: saved } },
    saveState,
  });
  return { asked, onPlanned };
};
const checked = (name: string) =>
  Array.from(screen.getByRole("group", { name }).querySelectorAll("input:checked"), (one) => one.closest("div")?.parentElement?.textContent); // biome-ignore format: one line
const box = (name: RegExp) => screen.getByRole("checkbox", { name });

it("begins with the new head that brings most against the club whose place it takes", () => {
  plan();
  expect(checked("Clubs, two to four").map((words) => words?.split(",")[0])).toEqual(["Club 55", "old sand"]);
  expect(checked("Situations, one to three").map((words) => words?.split(",")[0])).toEqual(["pitch", "sand greenside"]);
  expect(screen.queryByRole("checkbox", { name: /full swing/ })).toBeNull();
});

it("counts the balls, and asks what so many can tell", async () => {
  const { asked } = plan();
  expect(screen.getByText(/80 balls in all, 20 with each club in each situation/)).toBeTruthy();
  await screen.findByText("20 balls with each club show a difference of 0.35 strokes a shot");
  fireEvent.click(box(/sand greenside/));
  expect(screen.getByText(/40 balls in all, 20 with each/)).toBeTruthy();
  await waitFor(() => expect(asked.filter(({ line }) => line.startsWith("GET proof-plan")).length).toBe(2));
});

it("what one plan can tell is not said of the next", async () => {
  const answers = { "GET proof-plan": { words: "tells 0.35" } as unknown };
  server(answers);
  show(<PlanForm result={RESULT} onPlanned={vi.fn()} />, { draft: { bag: { wedges: OWNED } } });
  await screen.findByText("tells 0.35");
  let answer: (words: object) => void = () => {};
  answers["GET proof-plan"] = new Promise((done) => {
    answer = done;
  });
  fireEvent.click(box(/sand greenside/));
  expect(screen.getByText(/40 balls in all/)).toBeTruthy();
  expect(screen.queryByText("tells 0.35")).toBeNull();
  answer({ words: "tells 0.49" });
  await screen.findByText("tells 0.49");
});

it("with one club or no situation there is nothing to plan; a fifth club takes the place of the first", () => {
  plan();
  const button = screen.getByRole("button", { name: "Plan the proof" }) as HTMLButtonElement;
  fireEvent.click(box(/^old sand/));
  expect(button.disabled).toBe(true);
  for (const name of [/^old gap/, /^old lob/, /^Club 50/, /^Other 50/]) fireEvent.click(box(name));
  expect(checked("Clubs, two to four").length).toBe(4);
  expect((box(/^Club 55/) as HTMLInputElement).checked).toBe(false);
  fireEvent.click(box(/pitch/));
  fireEvent.click(box(/sand greenside/));
  expect(button.disabled).toBe(true);
});

it("until the fitter chooses, what is offered first goes with the proposal; a choice stays, named as it is", () => {
  server({ "GET proof-plan": { words: "" } });
  const part = (clubs: object[], wedges = OWNED) =>
    inFitting(<PlanForm result={{ ...RESULT, clubs } as never} onPlanned={vi.fn()} />, { draft: { bag: { wedges } } });
  const names = () => checked("Clubs, two to four").map((words) => words?.split(",").slice(0, 2).join(","));
  const { again } = showAlone(part([club("BN55", 55, 0.6, { replaces: "old sand" })]));
  again(part([club("HG54", 54, 0.6, { replaces: "old sand" })]));
  expect(names()).toEqual(["Club 54, proposed at 54°", "old sand, owned"]);
  expect(screen.getByText(/80 balls in all/)).toBeTruthy();
  fireEvent.click(box(/^old lob/));
  again(part([club("BN55", 55, 0.6, { replaces: "old sand" })], OWNED.slice(1)));
  expect(names()).toEqual(["old sand, owned", "old lob, owned", "Club 54, at 54°"]);
  expect(screen.getByText(/120 balls in all/)).toBeTruthy();
  again(part([club("BN55", 55, 0.6, { replaces: "old sand" })], OWNED.slice(0, 2)));
  expect(names()).toEqual(["old sand, owned", "Club 54, at 54°"]);
});

it("a player who owns no wedge begins with the head that comes next; what is missing is said", () => {
  server({ "GET proof-plan": { words: "tells 0.35" } });
  show(<PlanForm result={RESULT} onPlanned={vi.fn()} />, { draft: { bag: { wedges: [] } } });
  expect(checked("Clubs, two to four").map((words) => words?.split(",")[0])).toEqual(["Club 55", "Other 55"]);
  fireEvent.click(box(/^Other 55/));
  expect(screen.getByText("Choose two clubs at least.")).toBeTruthy();
  fireEvent.click(box(/^pitch/));
  fireEvent.click(box(/sand greenside/));
  expect(screen.getByText("Choose two clubs and a situation at least.")).toBeTruthy();
});

it("rounds are counted in whole numbers", () => {
  plan();
  const rounds = screen.getByLabelText("Rounds") as HTMLInputElement;
  fireEvent.change(rounds, { target: { value: "3.7" } });
  expect(screen.getByText(/^whole, 1 to /)).toBeTruthy();
  expect(screen.getByText(/80 balls in all/)).toBeTruthy();
});

it("a figure that is to be mended elsewhere keeps nobody from planning a proof", async () => {
  const { onPlanned } = plan("refused");
  fireEvent.click(screen.getByRole("button", { name: "Plan the proof" }));
  await waitFor(() => expect(onPlanned).toHaveBeenCalledOnce());
});

it("no plan goes by the places of a bag that is not saved", async () => {
  const { asked } = plan("refused", { wedges: OWNED }, { wedges: OWNED.slice(1) });
  fireEvent.click(screen.getByRole("button", { name: "Plan the proof" }));
  expect((await screen.findByRole("alert")).textContent).toContain("Wait until everything is saved, then try again.");
  expect(asked.some(({ line }) => line === "POST proofs")).toBe(false);
});

it("the plan is sent as it stands, hidden unless shown", async () => {
  const { asked, onPlanned } = plan();
  fireEvent.click(screen.getByText("show it"));
  fireEvent.click(screen.getByRole("button", { name: "Plan the proof" }));
  await waitFor(() => expect(onPlanned).toHaveBeenCalledOnce());
  expect(JSON.parse(asked.find(({ line }) => line === "POST proofs")?.body ?? "")).toMatchObject({
    candidates: ["BN55@55", "own:1"], balls_per_block: 5, rounds: 4, hide_model: false,
    situations: [{ shot: "pitch", ground: "home" }, { shot: "sand_greenside", ground: "home" }],
  }); // biome-ignore format: the body
});

const ball = (id: string, change: object = {}) => ({ id, block: 0, club: 0, outcome: "good", simulated: false, set_aside: null, to_hole_m: 2, carry_m: null, entry_mm: -20, ...change }); // biome-ignore format: one line
const PROOF = {
  document: {
    id: "p",
    candidates: [{ name: "old sand" }, { name: "Club 55" }],
    situations: [{ name: "pitch" }],
  },
  balls: [
    { ball: ball("a"), strokes: 2.514, lie: "green", source: "measured", mark: "" },
    { ball: ball("b", { set_aside: "disturbed", simulated: true }), strokes: 3, lie: "rough", source: "by its outcome", mark: "" },
  ],
  verdict: {
    comparisons: [
      { first: 0, second: 1, situation: 0, balls: 12, seen: 0.21, error: 0.1, watched: null, expected: 0.3, mean: 0.25, low: 0.1, high: 0.4, chance: 0.04 },
      { first: 0, second: 1, situation: null, balls: 12, seen: -0.05, error: 0.1, watched: 0.14, expected: 0.3, mean: 0.2, low: -0.02, high: 0.4, chance: 0.11 },
    ],
    seen: [{ club: 0, situation: 0, balls: 1, strokes: 2.51, spread: 0, entry_mm: -21.4, entry_spread_mm: null }],
  },
} as unknown as Proof; // biome-ignore format: a row a line
const cells = (row: number) => Array.from(screen.getAllByRole("row")[row]?.querySelectorAll("td") ?? [], (cell) => cell.textContent); // biome-ignore format: one line

it("differences keep their sign and their situation; what cannot be told from one ball stays empty", () => {
  show(<ComparisonTable proof={PROOF} />);
  expect(cells(1).slice(0, 6)).toEqual(["A old sand less B Club 55", "pitch", "12", "0.21", "0.10", ""]);
  expect(cells(2).slice(1, 6)).toEqual(["all", "12", "−0.05", "0.10", "0.14"]);
  expect(cells(2).at(-1)).toBe("11\u00a0%");
  expect(cells(4)).toEqual(["A old sand", "pitch", "1", "2.51", "", "−21", ""]);
});

it("a ball is set aside with its reason and counted again, in the reader's unit", () => {
  show(
    <UnitsProvider value={{ distance: "yd", speed: "mph" }}>
      <BallTable proof={PROOF} />
    </UnitsProvider>,
  );
  expect(cells(1).slice(2, 5)).toEqual(["good", "2.2\u00a0yd", ""]);
  expect(cells(2)[2]).toBe("good, simulated");
  fireEvent.click(screen.getByRole("button", { name: "Set aside" }));
  fireEvent.click(screen.getByRole("button", { name: "misread" }));
  expect(prove).toHaveBeenLastCalledWith({ kind: "ball_tell", proof: "p", id: "a", changes: { set_aside: "misread" } });
  fireEvent.click(screen.getByRole("button", { name: "disturbed: count it" }));
  expect(prove).toHaveBeenLastCalledWith({ kind: "ball_tell", proof: "p", id: "b", changes: { set_aside: null } });
});
