import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { ground } from "../../testing/ground";
import { inFitting, server, show, showAlone } from "../../testing/show";
import { FromFile } from "./FromFile";
import { Seen } from "./Seen";
import { Timeline } from "./Timeline";
import { Trips } from "./Trips";
import { VenueSelect } from "./VenueSelect";

const edit = vi.fn();
beforeEach(() => edit.mockClear());
const seen = (change = {}) => ({
  shots: 40, seen: 2.8, expected: 2.6, difference: 0.15, low: 0.05, high: 0.25, weight: 0.7, call: "worse", ...change,
}); // biome-ignore format: one line
const HEAD = {
  club: "own:0", name: "old gap", surface: "turf", model: 2.5, proof: 0, proof_balls: 0, log: 0.12, log_shots: 30,
  log_weight: 0.6, called: false, alone: "worse", total: 2.62,
}; // biome-ignore format: one line a few things
const ROUND = { round: "r1", on: "2026-05-01", by: "player", shots: 20, unknown: 1, over: 0.4, same_as: null };
const LOG = {
  shots: 42, rounds: [ROUND, { ...ROUND, round: "r2" }], unknown: 2, spread: 0.45, whole: seen(), over_round: 1, situations: [
    { key: "chip", name: "basic chip", club: "", seen: seen({ shots: 3, call: "too few" }) },
  ],
  clubs: [], months: [], reliability: [], parts: null, leaks: [], heads: [HEAD], offers: [], decisions: [], choices: [], clubs_here: [],
}; // biome-ignore format: one line a few things
const STORE = { server: { id: "f", revision: 3, strikes_key: "", document: { after: { trips: [] } } }, edit };

it("the verdict says by how much, of how many, and what is kept without being judged", async () => {
  server({ "GET log": { ...LOG, rounds: [] }, "GET ": { mappings: [] } });
  show(<Seen />, { ...STORE, draft: { after: { decisions: [] } } });
  expect(await screen.findByText("Worse than expected: 0.15 strokes a shot more")).toBeTruthy();
  expect(screen.getByRole("region", { name: "Verdict" }).textContent).toContain("8 of 10 between +0.05 and +0.25");
  expect(screen.getByText(/2 more are kept and not judged/)).toBeTruthy();
  const chip = screen.getByRole("cell", { name: "basic chip" }).closest("tr");
  expect(chip?.querySelector("[data-call]")?.getAttribute("data-call")).toBe("too few");
});

it("a club that went worse is not called a bad head while it may be the player", async () => {
  server({ "GET log": LOG, "GET ": { mappings: [] } });
  show(<Seen />, { ...STORE, draft: { after: { decisions: [] } } });
  const row = (await screen.findByRole("cell", { name: "old gap" })).closest("tr");
  expect(row?.textContent).toContain("its shots went worse than expected, by head or player");
  cleanup();
  server({ "GET log": { ...LOG, heads: [{ ...HEAD, alone: "open" }] }, "GET ": { mappings: [] } });
  show(<Seen />, { ...STORE, draft: { after: { decisions: [] } } });
  expect((await screen.findByRole("cell", { name: "old gap" })).closest("tr")?.textContent).toContain(
    "it may be chance",
  );
});

it("an empty log teaches how to fill it, and one that cannot be read says why", async () => {
  server({ "GET log": { ...LOG, shots: 0 }, "GET ": { mappings: [] } });
  show(<Seen />, { ...STORE, draft: { after: { decisions: [] } } });
  expect(await screen.findByText(/No shot is noted yet/)).toBeTruthy();
  cleanup();
  server({});
  show(<Seen />, { ...STORE, draft: { after: { decisions: [] } } });
  expect(await screen.findByRole("alert")).toBeTruthy();
});

const FOUND = {
  layout: { kind: "xlsx", sheets: ["March", "April"], sheet: "March", encoding: null, delimiter: null, header_row: 1, formulas: 0 },
  header: ["Day", "Lie", "Club", "How"], first: [["2026-05-01", "chip", "gap", "stiff"]], saved_as: null,
  mapping: { columns: { on: 1, situation: 2, club: 3 }, unit: "m", clubs: {}, situations: {}, results: {} },
  unknown: { result: ["stiff"] }, missing: ["result"], rows: 0, refused: [], taken: null,
}; // biome-ignore format: one line a few things
const file = (name: string) => new File(["Day,Lie,Club,How\n"], name, { type: "text/csv" });

it("a table is looked at, mended word by word, taken with the mapping's name, and not twice", async () => {
  const asked = server({ "POST log/file": FOUND, "GET log": LOG, "GET ": { mappings: [] } });
  show(<FromFile />, STORE);
  fireEvent.change(screen.getByLabelText("Table of shots"), { target: { files: [file("spring rounds.csv")] } });
  const word = await screen.findByLabelText("result: “stiff” means");
  expect(screen.getByText("Nothing can be told before there is a column for result.")).toBeTruthy();
  fireEvent.change(word, { target: { value: "close" } });
  await waitFor(() => expect(asked.filter(({ line }) => line.startsWith("POST"))).toHaveLength(2));
  expect(JSON.parse(asked.filter(({ line }) => line.startsWith("POST"))[1]?.body ?? "").mapping.results).toEqual({
    stiff: "close",
  });
  const again = server({
    "POST log/file": { ...FOUND, unknown: {}, missing: [], rows: 4, taken: 4 },
    "GET log": LOG,
    "GET ": { mappings: [{ id: "m", name: "spring rounds", kept_at: "2026-05-01T10:00:00Z" }] },
  });
  fireEvent.change(screen.getByLabelText("distances in"), { target: { value: "yd" } });
  expect(await screen.findByText(/4 new shots taken/)).toBeTruthy();
  expect(JSON.parse(again[0]?.body ?? "").mapping.unit).toBe("yd");
  expect((screen.getByLabelText("Name of the mapping") as HTMLInputElement).value).toBe("spring rounds");
  expect(screen.getByRole("button", { name: "Take 4 shots" }).hasAttribute("disabled")).toBe(true);
  expect(await screen.findByText(/mapping, saved 1 May 2026/)).toBeTruthy();
});

it("another sheet has its columns guessed anew, and what is chosen then is of that sheet", async () => {
  const april = { ...FOUND, layout: { ...FOUND.layout, sheet: "April" }, mapping: { ...FOUND.mapping, layout: { sheet: "April" } } }; // biome-ignore format: one line
  const saved = { ...FOUND, saved_as: "club book" };
  server({ "POST log/file": saved, "GET log": LOG, "GET ": { mappings: [] } });
  show(<FromFile />, STORE);
  fireEvent.change(screen.getByLabelText("Table of shots"), { target: { files: [file("a.xlsx")] } });
  expect(await screen.findByText("Mapped as “club book”, saved earlier.")).toBeTruthy();
  const asked = server({ "POST log/file": april, "GET log": LOG, "GET ": { mappings: [] } });
  fireEvent.click(screen.getByRole("combobox", { name: "Sheet" }));
  fireEvent.click(screen.getByRole("option", { name: "April", hidden: true }));
  await waitFor(() => expect(screen.queryByText(/Mapped as/)).toBeNull());
  expect(JSON.parse(asked[0]?.body ?? "")).toMatchObject({ layout: { sheet: "April" }, mapping: null });
  fireEvent.change(screen.getByLabelText("distances in"), { target: { value: "yd" } });
  await waitFor(() => expect(asked.filter(({ line }) => line.startsWith("POST"))).toHaveLength(2));
  expect(JSON.parse(asked.at(-1)?.body ?? "").mapping).toMatchObject({ layout: { sheet: "April" }, unit: "yd" });
});

it("what is chosen stays where the server does not answer, and is sent again at a press", async () => {
  server({ "POST log/file": FOUND, "GET log": LOG, "GET ": { mappings: [] } });
  show(<FromFile />, STORE);
  fireEvent.change(screen.getByLabelText("Table of shots"), { target: { files: [file("a.csv")] } });
  const word = (await screen.findByLabelText("result: “stiff” means")) as HTMLSelectElement;
  vi.stubGlobal("fetch", async () => new Response("", { status: 503 }));
  fireEvent.change(word, { target: { value: "close" } });
  expect(word.value).toBe("close");
  const again = await screen.findByRole("button", { name: "Try again" });
  expect(word.isConnected).toBe(true);
  expect(word.value).toBe("close");
  const asked = server({
    "POST log/file": { ...FOUND, rows: 4, missing: [] },
    "GET log": LOG,
    "GET ": { mappings: [] },
  });
  fireEvent.click(again);
  expect(await screen.findByText("4 shots understood, 0 wrong.")).toBeTruthy();
  expect(JSON.parse(asked[0]?.body ?? "").mapping.results).toEqual({ stiff: "close" });
});

it("a word that was given a wrong meaning is there to be given another, or none", async () => {
  const mapped = { ...FOUND, unknown: { club: ["driver"] }, mapping: { ...FOUND.mapping, results: { stiff: "heavy", fat: "heavy" } } }; // biome-ignore format: one line
  const asked = server({ "POST log/file": mapped, "GET log": LOG, "GET ": { mappings: [] } });
  const told = () => JSON.parse(asked.filter(({ line }) => line.startsWith("POST")).at(-1)?.body ?? "").mapping;
  show(<FromFile />, STORE);
  fireEvent.change(screen.getByLabelText("Table of shots"), { target: { files: [file("a.csv")] } });
  const stiff = (await screen.findByLabelText("result: “stiff” means")) as HTMLSelectElement;
  expect(stiff.value).toBe("heavy");
  expect((screen.getByLabelText("club: “driver” means") as HTMLSelectElement).value).toBe("");
  fireEvent.change(stiff, { target: { value: "close" } });
  await waitFor(() => expect(told()?.results).toEqual({ stiff: "close", fat: "heavy" }));
  fireEvent.change(screen.getByLabelText("result: “fat” means"), { target: { value: "" } });
  await waitFor(() => expect(told()?.results).toEqual({ stiff: "heavy" }));
});

it("wrong rows are named and hold the rest; a mapping that was saved says so and can be let go", async () => {
  const saved = { id: "m", name: "club book", kept_at: "2026-05-01T10:00:00Z" };
  const refused = [{ row: 6, field: "on", message: "is no day: someday" }];
  const asked = server({
    "POST log/file": { ...FOUND, unknown: {}, missing: [], rows: 3, refused, saved_as: "club book" },
    "GET log": LOG,
    "GET ": { mappings: [saved] },
    "DELETE ": null,
  });
  show(<FromFile />, STORE);
  fireEvent.change(screen.getByLabelText("Table of shots"), { target: { files: [file("a.csv")] } });
  expect(await screen.findByText("row 6, day: is no day: someday")).toBeTruthy();
  expect(screen.getByText("Mapped as “club book”, saved earlier.")).toBeTruthy();
  expect(screen.getByRole("button", { name: "Take 3 shots" }).hasAttribute("disabled")).toBe(true);
  fireEvent.click(await screen.findByRole("button", { name: "Forget it: club book" }));
  await waitFor(() => expect(asked.some(({ line }) => line.startsWith("DELETE"))).toBe(true));
});

const GROUND = {
  name: "home", share: 1, green: "medium", venue: null, season: null, read_on: null,
  turf: { firmness_g: 90, firmness_source: "measured", firmness_readings: [90] }, sand: {},
}; // biome-ignore format: one line a few things

it("no venue is denied before the library is read, nor where it cannot be", async () => {
  server({ "GET ": { records: [] } });
  const shown = show(<VenueSelect label="A venue" onPick={vi.fn()} />);
  const first = () => (screen.getByLabelText("A venue") as HTMLSelectElement).options[0]?.textContent;
  expect(first()).toBe("reading the venues …");
  await waitFor(() => expect(first()).toBe("no venue is kept yet"));
  shown.unmount();
  server({});
  show(<VenueSelect label="A venue" onPick={vi.fn()} />);
  await waitFor(() => expect(first()).toContain("could not do that now"));
});

it("a trip is begun from a venue with its reading, of its own name, and whole", async () => {
  const record = {
    id: "v",
    venue: "Shingle Bay",
    season: "summer",
    read_on: "2026-06-01",
    ground: { ...GROUND, share: 0.3 },
  };
  server({ "GET ": { records: [record] } });
  const draft = { after: { trips: [], decisions: [] }, grounds: [GROUND], player: { hand: "right" } };
  show(<Trips />, { ...STORE, draft });
  expect(screen.getByText(/Choose a venue that the studio has read/)).toBeTruthy();
  await screen.findByText("Shingle Bay, summer 2026");
  fireEvent.change(screen.getByLabelText("A trip to a venue that was read"), { target: { value: "0" } });
  const [section, after] = edit.mock.lastCall ?? [];
  expect(section).toBe("after");
  expect(after.trips).toHaveLength(1);
  expect(after.trips[0]).toMatchObject({ name: "Shingle Bay", season: false, from_on: null });
  expect(after.trips[0].grounds[0]).toMatchObject({ name: "Shingle Bay", share: 1 });
});

it("a ground of a trip is left out, and what is typed of another stays with it", async () => {
  server({ "GET ": { records: [] } });
  const grounds = ["bay", "hill", "dunes"].map((name) => ground(name, 1 / 3));
  const on = (of: object[]) => {
    const trips = [{ name: "tour", season: false, from_on: null, to_on: null, grounds: of }];
    return inFitting(<Trips />, { ...STORE, draft: { after: { trips, decisions: [] }, grounds: [GROUND], player: { hand: "right" } } });
  }; // biome-ignore format: one line a few things
  const { again } = showAlone(on(grounds));
  fireEvent.change(screen.getByLabelText("Share of dunes"), { target: { value: "4x" } });
  fireEvent.click(screen.getByRole("button", { name: "Leave bay out" }));
  const left = edit.mock.lastCall?.[1].trips[0].grounds as { name: string; share: number }[];
  expect(left.map(({ name, share }) => [name, Number(share.toFixed(4))])).toEqual([["hill", 0.5], ["dunes", 0.5]]); // biome-ignore format: one line
  again(on(left));
  expect((screen.getByLabelText("Share of dunes") as HTMLInputElement).value).toBe("4x");
  expect((screen.getByLabelText("Share of hill") as HTMLInputElement).value).toBe("50");
  again(on(left.slice(0, 1)));
  expect(screen.queryByRole("button", { name: /^Leave/ })).toBeNull();
});

it("the advice is that of the trip that is shown, and none of another stands under it meanwhile", async () => {
  const way = { gain_strokes_round: 0.4, doubt: null };
  const advice = {
    advice: "setup", words: "Lean less there.", grounds: [], lies: [], outlines_mm: {},
    setup: { ...way, changes: [], gain_at_home_strokes_round: 0 }, clubs: { ...way, bought: [], left_out: null }, both: way,
  }; // biome-ignore format: one line a few things
  const trip = (name: string) => ({ name, season: false, from_on: null, to_on: null, grounds: [] });
  const trips = [trip("bay"), trip("hill")];
  server({ "GET trip": advice, "GET ": { records: [] } });
  const draft = { after: { trips, decisions: [] }, grounds: [GROUND], player: { hand: "right" } };
  const saved = { ...STORE.server, document: { after: { trips } } };
  const on = (store: object) => inFitting(<Trips />, { ...STORE, server: saved, draft, ...store });
  const { again } = showAlone(on({}));
  const told = "Lean less there.";
  await screen.findByText(told);
  fireEvent.click(screen.getByRole("button", { name: /hill/ }));
  expect(screen.queryByText(told)).toBeNull();
  await screen.findByText(told);
  const renamed = { ...draft, after: { ...draft.after, trips: [trip("bay"), trip("bay")] } };
  again(on({ draft: renamed }));
  expect(screen.getByText("Worked out once the trip is saved.")).toBeTruthy();
  again(on({ faults: [{ field: "after.trips.1.grounds", message: "do not sum", value: "", name: "" }] }));
  expect(screen.queryByText(told)).toBeNull();
  again(on({}));
  expect(await screen.findByText(told)).toBeTruthy();
});

it("the next fitting is begun by a press on the last one, and a fitting that was followed leads to the later one", async () => {
  const era = {
    fitting_id: "f", on: "2026-04-18", here: true, lofts_deg: [50, 56], bounces_deg: [8, 12], attack_deg: -6, attack_spread: 1,
    attack_source: "measured", lean_deg: 5, lean_spread: 2, lean_source: "earlier", handicap: null, promised_strokes_round: 1.2,
    came_strokes_round: null, rounds: 0, drills: [], strokes: { chip: 0.4 },
  }; // biome-ignore format: one line a few things
  const timeline = { eras: [era], moments: [], situations: { chip: "basic chip" } };
  const asked = server({ "GET timeline": timeline, "POST next": { id: "g" } });
  show(<Timeline />, STORE);
  fireEvent.click(await screen.findByRole("button", { name: "Begin the next fitting" }));
  await waitFor(() => expect(asked.some(({ line }) => line === "POST next")).toBe(true));
  expect(screen.getByText("no rounds noted")).toBeTruthy();
  expect(screen.getByText("5.0 ± 2.0, from then")).toBeTruthy();
  expect(screen.getByRole("cell", { name: "basic chip, strokes lost a round" }).nextSibling?.textContent).toBe("0.40");
  cleanup();
  const later = { ...era, fitting_id: "g", here: false, on: "2026-10-01", rounds: 3, came_strokes_round: null };
  server({ "GET timeline": { ...timeline, eras: [era, later] } });
  show(<Timeline />, STORE);
  expect(await screen.findByText(/A later fitting follows this one/)).toBeTruthy();
  expect(screen.queryByRole("button", { name: "Begin the next fitting" })).toBeNull();
  expect(screen.getByText("not judged")).toBeTruthy();
});
