import "fake-indexeddb/auto";
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { Session } from "../../api/client";
import { SessionProvider } from "../../session/session";
import { StrikeQueueProvider } from "../../strikes/queue";
import { server, show } from "../../testing/show";
import BuildStep from "./BuildStep";

const edit = vi.fn();
beforeEach(() => edit.mockClear());
const head = { outline_mm: [[0, 0], [10, -3], [20, 0]], loft_deg: 56, bounce_deg: 10, lie_deg: 64, edge_height_mm: 3, mass_g: 300 }; // biome-ignore format: one line
const club = (name: string, action: string) => ({
  name, action, before: head, after: head, built: null, unmatched: false, lie_asked_deg: null, lie_by_deg: 0, start_m: 0,
  removed_g: 0, deepest_mm: 0, worth_strokes_round: null, bend_left_deg: 1, on_shelf: null, weeks: 0, notes: [],
  as_built: [], operations: [], usual: {},
  wish: {
    code: name, loft_deg: 56, lie_deg: null, bent_before_deg: [], shaft: null, grip: null, length_in: null,
    grind: { heel_mm: 0, toe_mm: 0, back_fraction: 0, back_deg: 0, bevel_mm: 0, bevel_deg: 0 },
    read: { loft_deg: null, lie_deg: null, swing_weight: null, typed: false },
  },
}); // biome-ignore format: one line a few things
const SHEET = {
  clubs: [club("gap", "keep"), club("sand", "bend"), club("lob", "bend")], faults: [], own: false, changed: [], weeks: 2,
  strokes_round: 30.2, proposal_strokes_round: 30.2, as_built_strokes_round: null, shafts: [], grips: [], seen_at_m: 90,
  parts: 10, labour: 20, tax: 6, total: 36, order: null, earlier: [],
}; // biome-ignore format: one line a few things
const step = (change: object = {}, clubs: object[] = [], refused: object | null = null) => {
  if (refused === null) server({ "GET build": { ...SHEET, ...change } });
  else
    vi.stubGlobal("fetch", async () => {
      const headers = { "Content-Type": "application/json" };
      return new Response(JSON.stringify(refused), { status: 422, headers });
    });
  show(
    <SessionProvider session={{ csrf_token: "t", fitter: "Ada", fitter_id: "me" } as unknown as Session}>
      <StrikeQueueProvider>
        <BuildStep />
      </StrikeQueueProvider>
    </SessionProvider>,
    {
      server: { id: "f", revision: 1, strikes_key: "k", document: { rack: null, bag: { wedges: [] } } },
      draft: { build: { clubs } },
      saveState: "saved",
      edit,
      did: () => {},
      onDeed: () => {},
    },
  );
};

it("the sheet in a line: what is done with how many clubs, and when it is ready", async () => {
  step();
  expect(await screen.findByText("1 kept, 2 bent; ready in 2 weeks")).toBeTruthy();
  expect(within(screen.getByLabelText("Quote")).getAllByRole("definition").map((one) => one.textContent)).toEqual([
    "10.00", "20.00", "6.00", "36.00",
  ]); // biome-ignore format: one line
});

it.each([
  [{ strokes_round: 30.204 }, /^Built so it is worth what the proposal says\./],
  [{ strokes_round: 30.31 }, /^Built so it costs 0\.11 strokes a round more than the proposal\./],
  [{ strokes_round: 30.1 }, /^Built so it costs 0\.10 strokes a round less than the proposal\./],
  [{ as_built_strokes_round: 30.198 }, /^As it was read it is worth what the sheet says\.$/],
  [{ as_built_strokes_round: 30.25 }, /^As it was read it costs 0\.05 strokes a round more than the sheet\.$/],
])("%o is said as it is", async (change, words) => {
  step(change);
  expect(await screen.findByText(words)).toBeTruthy();
});

it("the first change makes the proposed set the fitter's own, the other clubs as they are proposed", async () => {
  step();
  const lob = within(await screen.findByRole("region", { name: "lob" }));
  fireEvent.change(lob.getByLabelText("Loft"), { target: { value: "57" } });
  const [section, { clubs }] = edit.mock.lastCall as [string, { clubs: { code: string; loft_deg: number }[] }];
  expect(section).toBe("build");
  expect(clubs.map(({ code, loft_deg }) => [code, loft_deg])).toEqual([["gap", 56], ["sand", 56], ["lob", 57]]); // biome-ignore format: one line
  expect(screen.queryByRole("button", { name: "Take the proposed set anew" })).toBeNull();
});

it("the fitter's own set is let go at a press", async () => {
  step(
    { own: true },
    SHEET.clubs.map(({ wish }) => wish),
  );
  fireEvent.click(await screen.findByRole("button", { name: "Take the proposed set anew" }));
  expect(edit).toHaveBeenLastCalledWith("build", { clubs: [] });
});

it("what cannot be built is said of its club and figure, and then it cannot go to the bench", async () => {
  step({ faults: [{ field: "build.clubs.1.bend_deg", message: "past the limit of 2°" }] });
  expect((await screen.findByRole("alert")).textContent).toContain("sand bend past the limit of 2°");
  expect(screen.getByRole("button", { name: "Give it to the bench" }).hasAttribute("disabled")).toBe(true);
  expect(screen.queryByRole("link", { name: "PDF" })).toBeNull();
});

it("a sheet that cannot be had says why", async () => {
  step({}, [], { code: "invalid", message: "no proposal yet" });
  await waitFor(() => expect(screen.getByRole("alert").textContent).toBe("no proposal yet"));
});
