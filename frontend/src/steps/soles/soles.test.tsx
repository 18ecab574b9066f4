import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { Candidate, Club, Recommendation } from "../../api/client";
import { UnitsProvider } from "../../app/context";
import type { DeskHead } from "../../desk/useDesk";
import { inFitting, server, show, showAlone } from "../../testing/show";
import { CandidateTable } from "./CandidateTable";
import { SchoolsTable } from "./SchoolsTable";
import { SetsTable } from "./SetsTable";
import { SituationTable } from "./SituationTable";
import { WindowTable } from "./WindowTable";

const edit = vi.fn();
beforeEach(() => edit.mockClear());
const row = (scenario: string, serves: string[], change = {}) => ({
  scenario,
  serves,
  strokes: 2.5,
  owned_strokes: 2.62,
  best_strokes: 2.41,
  best_name: "Barrow 58",
  opening_deg: 12.5,
  loft_deg: 58,
  bounce_deg: 9.2,
  leading_edge_height_mm: 4.2,
  ...change,
});
const scenario = (key: string, share: number) => ({
  key,
  shot_name: key,
  ground: "home",
  share,
  wanted_bounce_low_deg: 5,
  wanted_bounce_high_deg: 10,
});
const CLUB = {
  name: "Barrow 56",
  replaces: "old sand",
  situations: [
    row("chip", ["short", "middle", "roomy"]),
    row("greenside sand", ["short"]),
    row("pitch", [], { owned_strokes: null }),
    row("gone", ["short"]),
  ],
} as unknown as Club;
const RESULT = {
  scenarios: [scenario("chip", 0.1), scenario("greenside sand", 0.2), scenario("pitch", 0.3)],
} as unknown as Recommendation;
const shots = () => screen.getAllByRole("row").slice(1).map((one) => within(one).getAllByRole("cell")[0]?.textContent); // biome-ignore format: one line

it("a club's situations are those it serves, the most faced first, and all of them at a press", () => {
  const onChoose = vi.fn();
  show(<SituationTable club={CLUB} result={RESULT} chosen="chip" onChoose={onChoose} />);
  expect(shots()).toEqual(["greenside sand", "chip"]);
  expect(screen.getByRole("columnheader", { name: "old sand" })).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "All 3 situations" }));
  expect(shots()).toEqual(["pitch", "greenside sand", "chip"]);
  fireEvent.click(screen.getByRole("button", { name: "pitch" }));
  expect(onChoose).toHaveBeenCalledWith("pitch");
});

it("pins are named unless it serves them all, and strokes have two places", () => {
  show(<SituationTable club={CLUB} result={RESULT} chosen="chip" onChoose={vi.fn()} />);
  const [sand, chip] = screen.getAllByRole("row").slice(1).map((one) => one.textContent ?? ""); // biome-ignore format: one line
  expect(sand).toContain("short-sided");
  expect(chip).toContain("every pin");
  expect(chip).toContain("2.502.622.41");
  expect(chip).toContain("12.5");
});

it("a club that serves nothing shows every situation, and has no button for them", () => {
  const idle = { ...CLUB, situations: [row("chip", []), row("pitch", [])] } as unknown as Club;
  show(<SituationTable club={idle} result={RESULT} chosen="" onChoose={vi.fn()} />);
  expect(shots()).toEqual(["pitch", "chip"]);
  expect(screen.queryByRole("button", { name: /situations/ })).toBeNull();
});

const candidate = (code: string, change = {}) => ({
  code,
  name: `head ${code}`,
  owned: false,
  shape: "full sole",
  bend_deg: 0,
  head: { loft_deg: 56, bounce_deg: 12, sole_width_mm: 21 },
  outline_mm: [],
  edge_height_mm: 4,
  behind: 0.12,
  reason: "digs less",
  ...change,
});

it("another head is taken by hand at its own loft, in the place of what was taken there before", () => {
  const club = {
    loft_deg: 56,
    pinned: true,
    candidates: [candidate("a"), candidate("b", { head: { loft_deg: 55.5, bounce_deg: 8 }, bend_deg: -1.5 })],
  } as unknown as Club;
  const pinned = [
    { loft_deg: 56, code: "a" },
    { loft_deg: 60, code: "lob" },
  ];
  show(<CandidateTable club={club} />, { draft: { choices: { pinned } }, edit });
  const bent = screen.getAllByRole("row")[2]?.textContent ?? "";
  expect(bent).toContain("−1.5");
  expect(bent).toContain("20");
  fireEvent.click(screen.getByRole("button", { name: "Take it" }));
  expect(edit).toHaveBeenLastCalledWith("choices", {
    pinned: [
      { loft_deg: 60, code: "lob" },
      { loft_deg: 55.5, code: "b" },
    ],
  });
  fireEvent.click(screen.getByRole("button", { name: "Let it go" }));
  expect(edit).toHaveBeenLastCalledWith("choices", { pinned: [{ loft_deg: 60, code: "lob" }] });
});

it("level sets say what each gains and gives up, and why the shown one is first", () => {
  const sets = [
    { clubs: ["50° gap", "56° sand"], behind: 0, shown: true, gains: "", gives_up: "" },
    { clubs: ["52° gap", "58° lob"], behind: 0.03, shown: false, gains: "short-sided sand", gives_up: "" },
  ];
  const result = { sets, level_sets: 14, first_because: "It bends least." } as unknown as Recommendation;
  show(<SetsTable result={result} />);
  expect(screen.getByRole("table", { name: "The best 2 of 14 level sets, strokes a round" })).toBeTruthy();
  const [, shown, other] = screen.getAllByRole("row").map((one) => one.textContent);
  expect(shown).toContain("shown");
  expect(other).toContain("short-sided sandnothing");
  expect(screen.getByText("It bends least.")).toBeTruthy();
  cleanup();
  const { container } = show(<SetsTable result={{ ...result, sets: [] }} />);
  expect(container.querySelector("table")).toBeNull();
});

it("the numbers of the pass are the reader's, an open window is open, none is none", () => {
  const head = (change = {}) => ({
    strike: {
      delivered_loft_deg: 61, delivered_bounce_deg: 14.25, outcome: "clean", carry_m: 9.144, leading_edge_mm: 1, impact_height_mm: 12,
      material_g: 3,
    },
    window: { low_mm: -42, high_mm: 8, open_ahead: false },
    inside_share: 0.81,
    expected_quality: 0.9,
    ...change,
  }); // biome-ignore format: one line a few things
  const candidates = [candidate("a"), candidate("b")] as unknown as Candidate[];
  const heads = [head(), head({ window: { low_mm: null, high_mm: null, open_ahead: true } })] as unknown as DeskHead[];
  show(
    <UnitsProvider value={{ distance: "yd", speed: "mph" }}>
      <WindowTable candidates={candidates} heads={heads} />
    </UnitsProvider>,
  );
  const [first, second] = screen.getAllByRole("row").slice(1).map((one) => within(one).getAllByRole("cell").map((c) => c.textContent)); // biome-ignore format: one line
  expect(first?.[4]).toBe("10.0");
  expect(first?.slice(8, 10)).toEqual(["−42", "8"]);
  expect(second?.slice(8, 10)).toEqual(["none", "open"]);
});

it("schools are asked about at a press, and an answer for the fitting as it was says so", async () => {
  const school = {
    question: "sand_club",
    choice: "most_loft",
    asks: "open the lob",
    gain_strokes_round: 0.4,
    changed: true,
    clubs: ["50°", "60°"],
  };
  server({ "GET schools": { schools: [school, { ...school, choice: "most_bounce", changed: false }] } });
  const store = (revision: number) => ({
    server: { id: "f", revision, strikes_key: "k", recommendation: null },
    saveState: "waiting",
  });
  show(<SchoolsTable />, store(3));
  fireEvent.click(screen.getByRole("button", { name: "What would each school change?" }));
  const table = await screen.findByRole("table", { name: "Schools beside the present choice" });
  expect(table.textContent).toContain("Sand: clubmost loftopen the lob");
  expect(table.textContent).toContain("50° · 60°");
  expect(table.textContent).toContain("the same set");
  expect(screen.queryByText(/ask again/)).toBeNull();
});

it("draws are said to be made only while they are, and those of the proposal before to be its", async () => {
  const at = (revision: number, whole_rack: boolean) =>
    inFitting(<SchoolsTable />, {
      server: { id: "f", revision, strikes_key: "k", recommendation: { whole_rack } },
      saveState: "saved",
    });
  const shares = [{ slot: 0, code: "a", name: "Barrow 56", share: 0.9 }];
  server({ "GET evidence": { draws: 500, shares, next_measurement: "" }, "GET flips": { flips: [] } });
  const { again } = showAlone(at(3, false));
  expect(screen.getByText("Worked out once the next proposal is there.")).toBeTruthy();
  again(at(3, true));
  expect(screen.getByText("Trying other habits, ground models and strokes tables …")).toBeTruthy();
  await screen.findByText(/trials have Barrow 56/, {});
  expect(screen.queryByText(/Draw/)).toBeNull();
  again(at(4, false));
  expect(screen.getByText(/^Worked out once .* What stands here is of the proposal before\.$/)).toBeTruthy();
  again(at(4, true));
  expect(screen.getByText(/^Trying other .* What stands here is of the proposal before\.$/)).toBeTruthy();
});

it("what is being worked out tells how far it is and is stopped at a press, on the server too", async () => {
  const count = (done: number, total: number) => ({ done, total });
  const none = count(0, 0);
  const never = new Promise(() => {});
  const asked = server({
    "GET evidence": { draws: 500, shares: [], next_measurement: "" },
    "GET flips": never,
    "GET schools": never,
    "GET work": { asked: none, ahead: none, laws: none, flips: count(2, 5), schools: count(6, 17) },
    "DELETE flips": null,
    "DELETE schools": null,
  });
  const lines = (line: string) => asked.filter((one) => one.line === line).length;
  // the address of the engine's work is shorter than those of a fitting
  const fetched = globalThis.fetch;
  vi.stubGlobal("fetch", (request: Request) =>
    fetched(request.url.endsWith("/engine/work") ? new Request("http://localhost/api/fittings/f/work") : request),
  );
  show(<SchoolsTable />, {
    server: { id: "f", revision: 3, strikes_key: "k", rack_key: "r", recommendation: { whole_rack: true } },
    saveState: "saved",
  });
  const looking = await screen.findByText(/^Trying another lean.*: 2 of 5/, {});
  const press = (part: HTMLElement, name: string) => {
    const button = within(part).getByRole("button", { name });
    button.focus();
    fireEvent.click(button);
    return button;
  };
  const stop = press(looking, "Stop");
  await screen.findByText(/^Looking for what would flip it was stopped\./);
  expect([document.activeElement === stop, stop.textContent]).toEqual([true, "Look again"]);
  fireEvent.click(stop);
  expect(await screen.findByText(/^Trying another lean/)).toBeTruthy();
  expect([lines("DELETE flips"), lines("GET flips")]).toEqual([1, 2]);

  const ask = press(document.body, "What would each school change?");
  await screen.findByText(/^Schools worked out: 6 of 17/);
  fireEvent.click(ask, { detail: 2 });
  expect([ask.textContent, lines("DELETE schools")]).toEqual(["Stop", 0]);
  fireEvent.click(ask);
  await waitFor(() => expect(screen.queryByText(/^Schools worked out/)).toBeNull());
  expect([document.activeElement === ask, ask.textContent]).toEqual([true, "What would each school change?"]);
  expect(lines("DELETE schools")).toBe(1);
});
