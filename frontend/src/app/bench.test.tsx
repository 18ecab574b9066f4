import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { server, show } from "../testing/show";
import { labelOf } from "./ClubRow";
import { SetBench } from "./SetBench";

const OUTLINE = [
  [0, 0],
  [-20, -3],
  [-10, 30],
];
const club = (change: object = {}) => ({
  slot: 0, code: "HG50", name: "Hanger 50", loft_deg: 50, bounce_deg: 10, owned: false, bend_deg: 0, replaces: null,
  reason: "it goes under the ball", survives: null, proofs: [], brings_strokes_round: 0.61,
  candidates: [{ code: "HG50", outline_mm: OUTLINE }], ...change,
}); // biome-ignore format: a club in a few lines
const step = (change: object = {}) => ({
  kind: "heads", heads_bought: 1, gain_strokes_round: 0.84, low: 0.4, high: 1.3, better_share: 0.97, clubs: [], ...change,
}); // biome-ignore format: a step in a line or two
const fitting = (change: object = {}, result: object = {}) => ({
  saveState: "saved",
  server: {
    id: "f", revision: 9, strikes: 40, strikes_key: "k", rack_key: "r", kept: null, kept_is_shown: true, problem: [],
    recommendation: {
      whole_rack: true, taken_step: 0, verdict: "the bag is good enough", steps: [step()], clubs: [club()], notes: [], bag: [],
      doubt: { draws: 500, assumed_count: false }, ...result,
    },
    ...change,
  },
}); // biome-ignore format: a fitting in a few lines
const bench = (change: object = {}, result: object = {}, saveState = "saved") => {
  const asked = server({});
  show(<SetBench open />, { ...fitting(change, result), saveState });
  return asked;
};
const text = (label: string) => screen.getByRole("article", { name: label }).textContent ?? "";
const keepButton = () => screen.getByRole("button", { name: "Keep this proposal" }) as HTMLButtonElement;

it("says what the set saves, how sure that is, and that the ground model is not yet tried", () => {
  bench();
  expect(screen.getByText("0.84").closest("p")?.textContent).toBe("0.84 strokes a round saved");
  expect(screen.getByText(/8 of 10 between 0\.40 and 1\.30; better than today’s bag in 97 of 100 trials, the ground model itself not yet tried/)).toBeTruthy(); // biome-ignore format: one sentence
});

it("a set that costs strokes is not called a saving", () => {
  bench({}, { steps: [step({ gain_strokes_round: -0.12 })] });
  expect(screen.getByText("0.12").closest("p")?.textContent).toBe("0.12 strokes a round more than today’s bag");
});

it("is never surer than more than 99 of 100, and today's bag has the verdict's words", () => {
  bench({}, { steps: [step({ better_share: 0.998 })] });
  expect(screen.getByText(/in more than 99 of 100 trials/)).toBeTruthy();
  cleanup();
  bench({}, { steps: [step({ kind: "bag", heads_bought: 0, gain_strokes_round: 0 })], clubs: [] });
  expect(screen.getByText("the bag is good enough")).toBeTruthy();
});

it("every club says where it comes from and what it takes the place of", () => {
  bench({}, {
    clubs: [
      club({ replaces: "old gap" }),
      club({ slot: 1, code: "BN55", name: "Barrow 55", loft_deg: 54.5, bend_deg: -0.5, bounce_deg: 9.5 }),
      club({ slot: 2, code: "own:2", name: "old lob", loft_deg: 60.5, bend_deg: 0.5, owned: true }),
      club({ slot: 3, code: "own:3", name: "old sand", loft_deg: 62, owned: true }),
    ],
  }); // biome-ignore format: a club a line
  expect(text("50 degrees")).toContain("Hanger 50 for old gap");
  expect(text("54.5 degrees")).toContain("Barrow 55, bent 0.5° strong, one more");
  expect(text("54.5 degrees")).toContain("9.5° bounce");
  expect(text("60.5 degrees")).toContain("old lob, bent 0.5° weak");
  expect(text("62 degrees")).toContain("old sand stays");
  expect(text("50 degrees")).toContain("0.61 brings");
});

it("survival is a share of the draws that were made, and says when the spreads are assumed", () => {
  bench({}, { clubs: [club({ survives: 0.874 })], doubt: { draws: 500, assumed_count: true } });
  expect(text("50 degrees")).toContain("Among the best in 437 of 500 trials, spreads assumed");
  cleanup();
  bench({}, { clubs: [club({ survives: 1 })], doubt: { draws: 500, assumed_count: false } });
  expect(text("50 degrees")).toContain("Among the best in all 500 trials");
});

it("what was kept is compared club by club, with the changes since", () => {
  const now = club({ replaces: "old gap" });
  const kept = { created_at: "2026-05-03T10:00:00Z", revision: 7, strikes: 40, strikes_key: "k", clubs: [labelOf(club({ loft_deg: 51 }))] }; // biome-ignore format: one line
  bench({ kept }, { clubs: [now] });
  expect(screen.getByRole("link").textContent).toMatch(/^kept 3 May 2026 · 2 changes since$/);
  expect(text("50 degrees")).toContain("Kept: Hanger 50: 51°, 10° bounce");
  cleanup();
  bench({ kept: { ...kept, revision: 9, clubs: [labelOf(now)] } }, { clubs: [now] });
  expect(screen.getByRole("link").textContent).toMatch(/ · unchanged$/);
  expect(text("50 degrees")).not.toContain("Kept:");
  cleanup();
  bench({ kept: { ...kept, revision: 9, strikes_key: "other" } });
  expect(screen.getByRole("link").textContent).toMatch(/ · 1 change since$/);
  cleanup();
  bench({ kept: { ...kept, revision: 9 }, kept_is_shown: false });
  expect(screen.getByRole("link").textContent).toMatch(/ · another set now$/);
});

it("only what is saved and of the whole rack can be kept", async () => {
  bench({}, { whole_rack: false });
  expect(keepButton().disabled).toBe(true);
  expect(screen.getByText("Among the clubs near the last choice; the whole rack follows.")).toBeTruthy();
  cleanup();
  bench({}, {}, "saving");
  expect(keepButton().disabled).toBe(true);
  cleanup();
  const asked = bench();
  fireEvent.click(keepButton());
  await waitFor(() => expect(asked.some(({ line }) => line.startsWith("POST kept"))).toBe(true));
  expect(JSON.parse(asked.find(({ line }) => line.startsWith("POST kept"))?.body ?? "{}").revision).toBe(9);
  await waitFor(() => expect(screen.getByRole("alert").textContent).toContain("What you typed stays here"));
});

it("a fitting that cannot be served says why instead of a set", () => {
  bench({ recommendation: null, problem: [{ field: "bag", message: "leaves no room for a wedge among 14 clubs" }] });
  expect(screen.getByRole("alert").textContent).toContain("leaves no room for a wedge among 14 clubs");
  expect(keepButton().disabled).toBe(true);
});

const NONE = { done: 0, total: 0 };
const JSON_ANSWER = { headers: { "Content-Type": "application/json" } };
const IDLE = { asked: NONE, ahead: NONE, laws: NONE, flips: NONE, schools: NONE };
it.each([
  [{ ...IDLE, asked: { done: 3, total: 9 } }, "saving", "New ground or heads: 3 of 9 worked out"],
  [{ ...IDLE, laws: { done: 2, total: 8 } }, "saved", "How sure: 2 of 8 trials of the ground model"],
  [{ ...IDLE, ahead: { done: 40, total: 90 } }, "saved", "Getting ready for other heads: 40 of 90"],
])("the engine's work is counted: %o", async (work, saveState, words) => {
  server({ "GET work": work });
  vi.stubGlobal("fetch", async () => new Response(JSON.stringify(work), JSON_ANSWER));
  show(<SetBench open />, { ...fitting(), saveState });
  await waitFor(() => expect(screen.getByText(words)).toBeTruthy());
}); // biome-ignore format: a row a case

it("the trials of the ground model are stopped at a press, and tried again at another", async () => {
  let tries = 0;
  vi.stubGlobal("fetch", (request: Request) => {
    if (request.url.endsWith("/work"))
      return Promise.resolve(new Response(JSON.stringify({ ...IDLE, laws: { done: 2, total: 8 } }), JSON_ANSWER));
    if (request.url.endsWith("/evidence")) tries += 1;
    return new Promise((_, fail) => request.signal.addEventListener("abort", () => fail(request.signal.reason)));
  });
  show(<SetBench open />, fitting());
  expect(await screen.findByText("How sure: 2 of 8 trials of the ground model")).toBeTruthy();
  await waitFor(() => expect(tries).toBe(1));
  fireEvent.click(screen.getByRole("button", { name: "Stop" }));
  expect(await screen.findByText("How sure: the trials of the ground model were stopped")).toBeTruthy();
  expect(screen.getByText(/the ground model itself not yet tried/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Try again" }));
  await waitFor(() => expect(tries).toBe(2));
});
