import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { SessionSummary } from "../../api/client";
import { UnitsProvider } from "../../app/context";
import { HearingProvider } from "../../devices/live";
import { inFitting, server, show, showAlone } from "../../testing/show";
import { Findings } from "./Findings";
import { MonitorBar } from "./MonitorBar";

const edit = vi.fn();
beforeEach(() => edit.mockClear());
type Units = Parameters<typeof UnitsProvider>[0]["value"];
const figure = (key: string, mean: number, change: object = {}) => ({
  key, name: key, unit: "degrees", mean, spread: 1.234, low: mean - 0.5, high: mean + 0.5, count: 12, inferred: 0,
  outliers: [], ...change,
}); // biome-ignore format: one line a few things
const row = (station: string, figures: object[], change: object = {}) => ({
  station, name: station, count: 12, aside: 0, figures, ...change,
}); // biome-ignore format: one line
const HABIT = [figure("attack_deg", -4.567), figure("lean_deg", 5.123), figure("entry", -33.4, { unit: "mm" })];
const SESSION = {
  overall: row("partial", HABIT),
  stations: [row("pitch", [figure("club_speed", 20, { unit: "m/s", inferred: 3, outliers: ["a"] })], { aside: 2 })],
  faults: [],
  trends: [],
  strikes: [],
};
const estimate = (mean: number) => ({ mean, spread: 2, count: null, source: "assumed" });
const DELIVERY = { attack_deg: estimate(-5), lean_deg: estimate(4), entry_mm: estimate(-30), release: "square" };
const findings = (
  change: object = {},
  delivery: object = DELIVERY,
  units = { distance: "yd", speed: "mph" } as Units,
) =>
  show(
    <UnitsProvider value={units}>
      <Findings session={{ ...SESSION, ...change } as unknown as SessionSummary} station="pitch" />
    </UnitsProvider>,
    { draft: { player: { name: "somebody", delivery } }, edit },
  );

it("the habit is taken over to the hundredth, as measured, with its count, and nothing else of the player changes", () => {
  findings();
  expect(screen.getByText(/On Player now: attack −5.0°, lean 4.0°, entry −30 mm/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Use as the habit" }));
  const taken = (mean: number) => ({ mean, spread: 1.23, count: 12, source: "measured" });
  expect(edit.mock.calls).toEqual([
    [
      "player",
      {
        name: "somebody",
        delivery: { release: "square", attack_deg: taken(-4.57), lean_deg: taken(5.12), entry_mm: taken(-33.4) },
      },
    ],
  ]);
});

it("a habit that stands on these strikes says so; one that was typed over it does not", () => {
  const taken = (mean: number, source = "measured") => ({ mean, spread: 1.23, count: 12, source });
  const same = { ...DELIVERY, attack_deg: taken(-4.57), lean_deg: taken(5.12), entry_mm: taken(-33.4) };
  findings({}, same);
  expect(screen.getByText("The fitting stands on these strikes.")).toBeTruthy();
  expect(screen.getByRole("button", { name: "Use as the habit" }).hasAttribute("disabled")).toBe(true);
  cleanup();
  findings({}, { ...same, lean_deg: taken(5.12, "typed") });
  expect(screen.queryByText("The fitting stands on these strikes.")).toBeNull();
  expect(screen.getByRole("button", { name: "Use as the habit" }).hasAttribute("disabled")).toBe(false);
});

it("without partial swings there is no habit, and it is said what it follows from", () => {
  findings({ overall: row("partial", []) });
  expect(screen.getByText(/The habit follows from partial swings/)).toBeTruthy();
  expect(screen.getByRole("button", { name: "Use as the habit" }).hasAttribute("disabled")).toBe(true);
});

it("figures are the reader's, with their interval, count, and what was inferred or left out", () => {
  findings();
  const rows = within(screen.getByRole("table", { name: "What the strikes say" })).getAllByRole("row");
  expect(rows[2]?.textContent).toContain("12, 2 aside");
  expect(rows[2]?.textContent).toContain("44.7 ± 2.8 (43.6 to 45.9; 12, 3 inferred, 1 far off, left out)");
  expect(rows[1]?.textContent).toContain("−33 ± 1");
  expect(rows[2]?.getAttribute("data-on")).toBe("true");
});

it("a fault says how often, by which rule and where it is seen; a recording is offered only of a device's strikes", () => {
  const faults = [
    { key: "digs", words: "Digs.", shown: 4, of: 12, rule: "attack beyond 8° down", picture: "sole_pass" },
    { key: "scatter", words: "Scatters.", shown: 5, of: 12, rule: "spread over 15 mm", picture: "entries" },
  ];
  findings({ faults, trends: [{ name: "entry", words: "The entry drifts back" }] });
  const [digs, scatters, drifts] = within(screen.getByRole("list", { name: "Findings" })).getAllByRole("listitem");
  expect(digs?.textContent).toBe("Digs. 4 of 12: attack beyond 8° down. See it on Soles.");
  expect(scatters?.textContent).toBe("Scatters. 5 of 12: spread over 15 mm. See the marks above.");
  expect(drifts?.textContent).toBe("The entry drifts back.");
  expect(screen.queryByRole("link", { name: "Save the recording" })).toBeNull();
  cleanup();
  findings({ strikes: [{ origin: "typed" }, { origin: "device" }] });
  expect(screen.getByRole("link", { name: "Save the recording" })).toBeTruthy();
});

const MONITOR = {
  available: true, wanted: true, state: "live", club: "own:0", swing: "pitch", device: "stand-in monitor", simulated: true,
  taken: 7, refused: 0, last_refusal: "",
}; // biome-ignore format: one line a few things
const BAG = { wedges: ["gap", "sand", "lob"].map((name) => ({ name, loft_deg: 50 })), former: [] };
const barOf = (hearing: boolean, club: string, station = "pitch") =>
  inFitting(
    <HearingProvider value={hearing}>
      <MonitorBar club={club} station={station} />
    </HearingProvider>,
    { server: { id: "f", document: { bag: BAG, measuring: { swings: [] } } } },
  );
const bar = (hearing = true, club = "own:0") => showAlone(barOf(hearing, club));
const monitor = (change: object) =>
  server({ "GET monitor": { ...MONITOR, ...change }, "PUT monitor": { ...MONITOR, ...change } });

it.each([
  [{}, true, "stand-in monitor, live, simulated: 7 taken"],
  [{ simulated: false }, true, "stand-in monitor, live: 7 taken"],
  [{ state: "lost" }, true, "Strike monitor lost, trying again"],
  [{ state: "connecting" }, true, "Strike monitor: connecting"],
  [{ wanted: false }, true, "Strike monitor off"],
  [{ available: false }, true, "No strike monitor is set up: strikes are typed."],
  [{}, false, "No word from the server: strikes are kept there and show when it is back"],
])("a monitor that is %o, heard %s, is said to be so", async (change, hearing, words) => {
  monitor(change);
  bar(hearing);
  expect(await screen.findByText(words)).toBeTruthy();
});

it("lines that could not be used are counted with the last reason", async () => {
  monitor({ refused: 2, last_refusal: "no carry" });
  bar();
  expect((await screen.findByText(/refused or flagged/)).textContent).toBe(
    "2 lines refused or flagged, the last: no carry",
  );
});

it("a monitor that listens for another club is told of this one, once; one that is off is told nothing", async () => {
  const asked = monitor({ wanted: false });
  bar(true, "own:1");
  await screen.findByText("Strike monitor off");
  await new Promise((done) => setTimeout(done, 20));
  expect(asked.filter(({ line }) => line.startsWith("PUT"))).toEqual([]);
  cleanup();
  const other = server({ "GET monitor": MONITOR, "PUT monitor": { ...MONITOR, club: "own:1" } });
  const shown = bar(true, "own:0");
  await screen.findByText(/7 taken/);
  shown.again(barOf(true, "own:1"));
  await waitFor(() => expect(other.filter(({ line }) => line.startsWith("PUT"))).toHaveLength(1));
  expect(JSON.parse(other.find(({ line }) => line.startsWith("PUT"))?.body ?? "{}")).toEqual({
    wanted: true,
    club: "own:1",
    swing: "pitch",
  });
});

it("a club chosen while the monitor is told of another is told next, and one that had no answer again", async () => {
  const answers: ((reply: Response) => void)[] = [];
  const told: { club: string }[] = [];
  const found = (club: string) =>
    new Response(JSON.stringify({ ...MONITOR, club }), { headers: { "Content-Type": "application/json" } });
  vi.stubGlobal("fetch", async (request: Request) => {
    if (request.method === "GET") return found("own:0");
    told.push(await request.json());
    return new Promise<Response>((done) => answers.push(done));
  });
  const shown = bar(true, "own:0");
  await screen.findByText(/7 taken/);
  shown.again(barOf(true, "own:1"));
  await waitFor(() => expect(told.map(({ club }) => club)).toEqual(["own:1"]));
  shown.again(barOf(true, "own:2"));
  await new Promise((done) => setTimeout(done, 20));
  expect(told).toHaveLength(1);
  answers[0]?.(found("own:1"));
  await waitFor(() => expect(told.map(({ club }) => club)).toEqual(["own:1", "own:2"]));
  answers[1]?.(new Response("{}", { status: 503 }));
  await waitFor(() => expect(told.map(({ club }) => club)).toEqual(["own:1", "own:2", "own:2"]));
});

it("a club that the monitor cannot have is not asked for again", async () => {
  const told: string[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const headers = { "Content-Type": "application/json" };
    if (request.method === "GET") return new Response(JSON.stringify(MONITOR), { headers });
    told.push((await request.json()).club);
    return new Response(JSON.stringify({ code: "invalid", message: "no such club", faults: [] }), {
      status: 422,
      headers,
    });
  });
  const shown = bar(true, "own:0");
  await screen.findByText(/7 taken/);
  shown.again(barOf(true, "own:1"));
  expect((await screen.findByRole("alert")).textContent).toBe("no such club");
  await new Promise((done) => setTimeout(done, 3300));
  expect(told).toEqual(["own:1"]);
});

it.each(["before", "since"])(
  "a screen that chose %s is not talked over, and this one's club comes by a press",
  async (when) => {
    let club = when === "before" ? "own:2" : "own:1";
    const told: string[] = [];
    vi.stubGlobal("fetch", async (request: Request) => {
      if (request.method === "PUT") {
        club = (await request.json()).club;
        told.push(club);
      }
      return new Response(JSON.stringify({ ...MONITOR, club }), { headers: { "Content-Type": "application/json" } });
    });
    const { client } = bar(true, "own:1");
    await screen.findByRole("button", { name: "Stop the monitor" });
    club = "own:2"; // chosen on another screen
    await client.invalidateQueries({ queryKey: ["monitor", "f"] });
    const press = await screen.findByRole("button", { name: "Listen for this one" });
    expect(screen.getByText(/It listens for lob, station pitch\./)).toBeTruthy();
    expect(told).toEqual([]);
    fireEvent.click(press);
    await waitFor(() => expect(told).toEqual(["own:1"]));
    await waitFor(() => expect(screen.queryByText(/It listens for/)).toBeNull());
  },
);

it("a press connects or stops it with what is chosen here", async () => {
  const asked = monitor({});
  bar();
  fireEvent.click(await screen.findByRole("button", { name: "Stop the monitor" }));
  await waitFor(() => expect(asked.some(({ line }) => line.startsWith("PUT"))).toBe(true));
  expect(JSON.parse(asked.find(({ line }) => line.startsWith("PUT"))?.body ?? "{}").wanted).toBe(false);
});
