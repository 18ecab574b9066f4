import "fake-indexeddb/auto";
import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { Session } from "../api/client";
import { TABLES } from "../api/tables";
import { SessionProvider } from "../session/session";
import { forgetActs, keepAct, markAct } from "../strikes/actStore";
import { StrikeQueueProvider } from "../strikes/queue";
import { server, show } from "../testing/show";
import { Conflicts } from "./Conflicts";
import { Strip } from "./Strip";
import type { SaveState } from "./useFitting";

const SCHOOLS = Object.fromEntries(TABLES.schools.map(({ key, usual }) => [key, usual]));
const PLAYER = { name: "Orla", hand: "left", handicap: 11, schools: SCHOOLS };
const undo = vi.fn();
const redo = vi.fn();
const onBench = vi.fn();
const session = { csrf_token: "t", fitter: "Ada", fitter_id: "me" } as unknown as Session;

function strip(store: object = {}, old: number | null = null) {
  const whole = {
    server: { id: "f", document: { bag: { wedges: [] } } },
    draft: {
      player: PLAYER,
      grounds: [
        { name: "home", share: 0.6 },
        { name: "away", share: 0.4 },
      ],
    },
    saveState: "saved",
    draftKept: true,
    undo,
    redo,
    canUndo: false,
    canRedo: false,
    undoProblem: null,
    conflicts: [],
    did: () => {},
    onDeed: () => {},
    ...store,
  };
  return show(
    <SessionProvider session={session}>
      <StrikeQueueProvider>
        <Strip old={old} onBench={onBench} />
        <Conflicts />
      </StrikeQueueProvider>
    </SessionProvider>,
    whole,
  );
}

beforeEach(async () => {
  await forgetActs("me");
  server({});
  for (const one of [undo, redo, onBench]) one.mockClear();
});

it("says who it is about, the hand, the handicap or that it is unknown, the ground, and schools that differ from the usual", () => {
  strip();
  for (const words of ["Orla", "left hand", "handicap 11", "home 60 % · away 40 %", "no school"])
    expect(screen.getByText(words)).toBeTruthy();
  cleanup();
  const schools = { ...SCHOOLS, hands: "quiet", gaps: "equal_loft" };
  strip({ draft: { player: { ...PLAYER, handicap: null, schools }, grounds: [] } });
  expect(screen.getByText("handicap unknown")).toBeTruthy();
  expect(screen.getByText("2 schools chosen")).toBeTruthy();
});

it.each<[SaveState, boolean, string]>([
  ["saved", true, "saved"],
  ["saving", true, "saving"],
  ["waiting", true, "not saved yet"],
  ["busy", true, "not saved yet, tried again"],
  ["conflict", true, "changed by somebody else too"],
  ["offline", true, "no connection, kept here"],
  ["offline", false, "no connection, lost when this page closes"],
  ["signed_out", true, "signed out, kept here"],
  ["signed_out", false, "signed out, lost when this page closes"],
  ["gone", false, "removed elsewhere, lost when this page closes"],
])("%s, kept %s: %s", (saveState, draftKept, words) => {
  strip({ saveState, draftKept });
  expect(screen.getByText(words)).toBeTruthy();
});

it("counts fields that are to be mended, and tells which, why and where", async () => {
  const faults = [
    { field: "after.trips.1.name", name: "Bay: name", message: "is the name of another trip, too" },
    { field: "bag", name: "", message: "has no room for a wedge" },
  ];
  strip({ saveState: "refused", faults });
  fireEvent.click(screen.getByRole("button", { name: "not saved: 2 to mend" }));
  const told = (await screen.findAllByRole("listitem")).map((one) => one.textContent);
  expect(told).toEqual([
    "Bay: name is the name of another trip, too. Go to Log",
    "Bag has no room for a wedge. Go to Bag",
  ]);
  expect(screen.getByRole("link", { name: "Go to Log", hidden: true }).getAttribute("href")).toBe(
    "/fittings/f/log?view=trips",
  );
});

it("is not saved while a strike waits, which is counted with what holds it up", async () => {
  vi.stubGlobal("fetch", () => Promise.reject(new TypeError("no network")));
  await keepAct("me", "f", { kind: "undo", id: "a" });
  strip();
  const waits = await screen.findByRole("status", { name: "Waiting to be sent" });
  await waitFor(() => expect(waits.textContent).toBe("1 strike waits for a connection"));
  expect(screen.getByText("not saved yet")).toBeTruthy();
});

it("strikes that the server does not take are counted apart", async () => {
  await markAct(await keepAct("me", "f", { kind: "undo", id: "a" }), { field: "", message: "closed" });
  strip();
  expect((await screen.findByRole("status", { name: "Not taken by the server" })).textContent).toBe("1 not taken");
  expect(screen.queryByRole("status", { name: "Waiting to be sent" })).toBeNull();
});

it("undo and redo are pressed while there is something, what could not be taken back is said, and old answers are dated", () => {
  strip(
    { canUndo: true, undoProblem: "Changed again since: it stays as it is." },
    new Date(2026, 9, 3, 9, 30).getTime(),
  );
  fireEvent.click(screen.getByRole("button", { name: "Undo" }));
  expect(undo).toHaveBeenCalledTimes(1);
  expect(screen.getByRole("button", { name: "Redo" }).hasAttribute("disabled")).toBe(true);
  expect(screen.getByText("Changed again since: it stays as it is.")).toBeTruthy();
  expect(screen.getByRole("status", { name: "How old this is" }).textContent).toBe("as of 3 Oct 2026, 09:30");
  fireEvent.click(screen.getByRole("button", { name: "The set" }));
  expect(onBench).toHaveBeenCalledTimes(1);
});

it("units are changed together, and the fitting is read again in them", async () => {
  const asked: string[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    if (request.url.endsWith("/session/units")) asked.push(await request.text());
    const body = request.url.includes("units")
      ? { ...session, units: { distance: "yd", speed: "mph" } }
      : { devices: [] };
    return new Response(JSON.stringify(body), { headers: { "Content-Type": "application/json" } });
  });
  const refresh = vi.fn(() => Promise.resolve());
  strip({ refresh });
  fireEvent.click(screen.getByRole("button", { name: "m, m/s" }));
  await waitFor(() => expect(refresh).toHaveBeenCalled());
  expect(asked.map((body) => JSON.parse(body))).toEqual([{ distance: "yd", speed: "mph" }]);
});

it("units that the server does not take stay as they were, and it is said", async () => {
  vi.stubGlobal("fetch", async (request: Request) =>
    request.url.endsWith("/session/units")
      ? Promise.reject(new TypeError("no network"))
      : new Response(JSON.stringify({ devices: [] }), { headers: { "Content-Type": "application/json" } }),
  );
  const refresh = vi.fn(() => Promise.resolve());
  strip({ refresh });
  fireEvent.click(screen.getByRole("button", { name: "m, m/s" }));
  expect(await screen.findByText(/^Units stay: /)).toBeTruthy();
  expect(screen.getByRole("button", { name: "m, m/s" })).toBeTruthy();
  expect(refresh).not.toHaveBeenCalled();
});

it("what somebody else changed too is gone to from the strip", () => {
  strip({
    saveState: "conflict",
    conflicts: [
      { path: "player.hand", name: "hand", unit: "", mine: null, theirs: null, mine_words: "a", theirs_words: "b" },
    ],
    resolve: vi.fn(),
  });
  fireEvent.click(screen.getByRole("button", { name: "changed by somebody else too" }));
  expect(document.activeElement).toBe(screen.getByRole("button", { name: "Take yours: hand" }));
});
