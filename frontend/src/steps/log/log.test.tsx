import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { inFitting, server, show, showAlone } from "../../testing/show";
import { today } from "../../units/days";
import { NoteShots } from "./NoteShots";
import { Offers } from "./Offers";
import { Rechecks } from "./Rechecks";
import { Rounds } from "./Rounds";
import type { Log } from "./useLog";

const AFTER = {
  decisions: [],
  snoozes: [],
  looked_at: [],
  use: { rounds_year: null, range_balls_week: null },
  trips: [],
};
const evidence = (name: string, against: string, source = "log") => ({ source, name, against, shots: [] });
const DRAFT = {
  after: AFTER,
  player: { name: "somebody", shot_mix: null },
  choices: { distances: null, economy: { table_scale: null } },
  evidence: [
    evidence("gap", "the bag's other clubs on turf"),
    evidence("gap", "the bag's other clubs on sand"),
    evidence("gap", "sand", "proof"),
  ],
};
const offer = (change: object) => ({
  key: "mix",
  name: "Shots they face",
  words: "20 shots",
  shots: 20,
  state: "open",
  shot_mix: null,
  distances: null,
  table_scale: null,
  evidence: null,
  shares: null,
  before: null,
  ...change,
});
const log = (change: object) =>
  ({ offers: [], rounds: [], choices: [], clubs_here: [], decisions: [], ...change }) as unknown as Log;
const edit = vi.fn();
const editAll = vi.fn();
const store = (draft: object = DRAFT) => ({
  server: { id: "f", revision: 3, strikes_key: "", document: {} },
  draft,
  edit,
  editAll,
});

beforeEach(() => {
  edit.mockClear();
  editAll.mockClear();
});

it("an offer that is taken goes into its section and is answered; one that is left is only answered", () => {
  const mix = { chip: 0.4, pitch: 0.6 };
  show(<Offers log={log({ offers: [offer({ shot_mix: mix })] })} />, store());
  fireEvent.click(screen.getByRole("button", { name: "Take it: Shots they face" }));
  const said = (accepted: boolean) => ({
    ...AFTER,
    decisions: [
      {
        key: "mix",
        accepted,
        on: today(),
        shots: 20,
        put: accepted ? { shot_mix: mix, distances: null, table_scale: null } : null,
        before: null,
      },
    ],
  });
  expect(editAll.mock.calls).toEqual([[{ after: said(true), player: { ...DRAFT.player, shot_mix: mix } }]]);
  editAll.mockClear();
  fireEvent.click(screen.getByRole("button", { name: "Leave it: Shots they face" }));
  expect(editAll.mock.calls).toEqual([[{ after: said(false) }]]);
});

it("what the fitter had typed comes back when the log's is left after all", () => {
  const typed = { chip: 1 };
  const before = { shot_mix: typed, distances: null, table_scale: null };
  show(<Offers log={log({ offers: [offer({ state: "accepted", shot_mix: { chip: 0.9 }, before })] })} />, store());
  fireEvent.click(screen.getByRole("button", { name: "Leave it: Shots they face" }));
  expect(editAll.mock.lastCall?.[0].player).toEqual({ ...DRAFT.player, shot_mix: typed });
});

it("what was taken and is left after all is assumed again", () => {
  const taken = offer({ key: "table", name: "Strokes table", state: "accepted", table_scale: 1.2 });
  const held = { ...DRAFT, choices: { distances: null, economy: { table_scale: 1.2 } } };
  show(<Offers log={log({ offers: [taken] })} />, store(held));
  fireEvent.click(screen.getByRole("button", { name: "Leave it: Strokes table" }));
  expect(Object.keys(editAll.mock.lastCall?.[0])).toEqual(["after", "choices"]);
  expect(editAll.mock.lastCall?.[0].choices.economy.table_scale).toBeNull();
});

it("what a log shows of a head replaces what it showed before there, and nothing else", () => {
  const new_one = { ...evidence("gap", "the bag's other clubs on turf"), shots: [{ shot: "chip", strokes: 0.1 }] };
  show(
    <Offers log={log({ offers: [offer({ key: "head:own:0:turf", name: "gap, turf", evidence: new_one })] })} />,
    store(),
  );
  fireEvent.click(screen.getByRole("button", { name: "Take it: gap, turf" }));
  expect(editAll.mock.lastCall?.[0].evidence).toEqual([DRAFT.evidence[1], DRAFT.evidence[2], new_one]);
});

it("an answer is said again only by another answer, and asked anew when shots came", () => {
  const offers = [
    offer({ state: "accepted" }),
    offer({ key: "table", name: "Strokes table", state: "declined", table_scale: 1.2 }),
    offer({ key: "distances", name: "Distances faced", state: "newer", distances: [] }),
  ];
  show(<Offers log={log({ offers })} />, store());
  expect(screen.getByRole("button", { name: "Take it: Shots they face" }).hasAttribute("disabled")).toBe(true);
  expect(screen.getByRole("button", { name: "Leave it: Strokes table" }).hasAttribute("disabled")).toBe(true);
  expect(screen.getByText("more shots since it was answered")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Take it: Strokes table" }));
  expect(editAll.mock.lastCall?.[0].choices).toEqual({ distances: null, economy: { table_scale: 1.2 } });
});

it("of two rounds that are taken out one after the other each can be put back", async () => {
  const asked = server({ "PATCH log/rounds": null, "GET log": {} });
  const round = (key: string, on: string) => ({ round: key, on, by: "player", shots: 4, unknown: 0, over: 0.42, same_as: null }); // biome-ignore format: one line
  show(<Rounds log={log({ rounds: [round("r1", "2026-05-01"), round("r2", "2026-05-08")] })} />, store());
  for (const button of screen.getAllByRole("button", { name: /^Take out/ })) fireEvent.click(button);
  const [first] = await screen.findAllByText(/^The round of 1 May/);
  await screen.findByText(/^The round of 8 May/);
  fireEvent.click(within(first as HTMLElement).getByRole("button", { name: "Put it back" }));
  await waitFor(() => expect(screen.queryByText(/^The round of 1 May/)).toBeNull());
  expect(screen.getByText(/^The round of 8 May/)).toBeTruthy();
  expect(asked.filter(({ line }) => line.startsWith("PATCH")).map(({ line }) => line.slice(-2))).toEqual([
    "r1",
    "r2",
    "r1",
  ]);
});

it("a round is taken out and put back, and two that look the same are said so", async () => {
  const asked = server({ "PATCH log/rounds": null, "GET log": {} });
  const round = {
    round: "r1",
    on: "2026-05-01",
    by: "player",
    shots: 4,
    unknown: 1,
    over: 0.42,
    same_as: "2026-05-01",
  };
  show(<Rounds log={log({ rounds: [round, { ...round, round: "r2", same_as: null, unknown: 0 }] })} />, store());
  const first = screen.getAllByRole("listitem")[0] as HTMLElement;
  expect(first.textContent).toContain("+0.42 strokes against what was expected, 1 not judged");
  expect(first.textContent).toContain("looks the same");
  fireEvent.click(within(first).getByRole("button", { name: /Take out/ }));
  fireEvent.click(await screen.findByRole("button", { name: "Put it back" }));
  await waitFor(() =>
    expect(asked.filter(({ line }) => line.startsWith("PATCH")).map(({ body }) => JSON.parse(body).out)).toEqual([
      true,
      false,
    ]),
  );
});

it("what is told of the next shot while one is being noted stays", async () => {
  let arrive: (found: object) => void = () => {};
  const asked = server({ "POST log": new Promise((done) => (arrive = done)), "GET log": {} });
  const choices = [{ situation: "chip", name: "basic chip", ground: "home", advised: "pw" }];
  const clubs_here = [{ code: "own:0", name: "gap" }, { code: "pw", name: "pitching wedge" }]; // biome-ignore format: one line
  show(<NoteShots log={log({ choices, clubs_here })} />, store());
  const field = (label: string) => screen.getByLabelText(label) as HTMLInputElement;
  fireEvent.change(field("Left, m"), { target: { value: "3" } });
  fireEvent.click(screen.getByRole("button", { name: "Note the shot" }));
  await waitFor(() => expect(asked).toHaveLength(1));
  fireEvent.change(field("Club"), { target: { value: "own:0" } });
  fireEvent.change(field("Left, m"), { target: { value: "1.5" } });
  arrive({ taken: 1 });
  expect(await screen.findByText("1 shot noted for this round.")).toBeTruthy();
  expect([field("Club").value, field("Left, m").value]).toEqual(["own:0", "1.5"]);
});

it("the lie and the club that are chosen stay where others come or go; a lie that is gone is chosen anew", () => {
  server({ "GET log": {} });
  const choice = (name: string, ground: string) => ({ situation: name, name, ground, advised: "pw" });
  const choices = [choice("approach", ""), choice("chip", "vale"), choice("chip", "home")];
  const clubs_here = ["gap", "lob"].map((name, n) => ({ code: `own:${n}`, name })).concat({ code: "pw", name: "pitching wedge" }); // biome-ignore format: one line
  const part = (change: object) => inFitting(<NoteShots log={log({ choices, clubs_here, ...change })} />, store());
  const { again } = showAlone(part({}));
  const field = (label: string) => screen.getByLabelText(label) as HTMLSelectElement;
  const shown = (label: string) => field(label).selectedOptions[0]?.textContent;
  fireEvent.change(field("Lie"), { target: { value: "2" } });
  fireEvent.change(field("Club"), { target: { value: "own:1" } });
  again(part({ choices: [choices[0], choices[2]], clubs_here: [{ code: "own:0", name: "lob" }, clubs_here[2]] }));
  expect([shown("Lie"), shown("Club")]).toEqual(["chip, home", "lob"]);
  again(part({ choices: choices.slice(0, 1) }));
  expect(shown("Lie")).toBe("choose it");
  expect((screen.getByRole("button", { name: "Note the shot" }) as HTMLButtonElement).disabled).toBe(true);
});

it("a shot is noted with the club that is advised, in the reader's unit, and not with a distance that is none", async () => {
  const asked = server({ "POST log": { taken: 1 }, "GET log": {} });
  const choices = [
    { situation: "approach", name: "approach", ground: "", advised: "pw" },
    { situation: "chip", name: "basic chip", ground: "home", advised: "own:0" },
  ];
  const clubs_here = [
    { code: "own:0", name: "gap" },
    { code: "pw", name: "pitching wedge" },
  ];
  show(<NoteShots log={log({ choices, clubs_here })} />, store());
  fireEvent.change(screen.getByLabelText("Lie"), { target: { value: "1" } });
  fireEvent.change(screen.getByLabelText("Left, m"), { target: { value: "close" } });
  fireEvent.click(screen.getByRole("button", { name: "Note the shot" }));
  expect(asked).toEqual([]);
  fireEvent.change(screen.getByLabelText("Left, m"), { target: { value: "2,5" } });
  fireEvent.change(screen.getByLabelText("To the hole, m"), { target: { value: "300" } });
  fireEvent.click(screen.getByRole("button", { name: "Note the shot" }));
  expect(screen.getByText("1 to 200 m")).toBeTruthy();
  expect(asked).toEqual([]);
  fireEvent.change(screen.getByLabelText("To the hole, m"), { target: { value: "" } });
  fireEvent.click(screen.getByRole("button", { name: "Note the shot" }));
  expect(await screen.findByText("1 shot noted for this round.")).toBeTruthy();
  const [shot] = JSON.parse(asked[0]?.body ?? "").shots;
  expect(shot).toMatchObject({ situation: "chip", ground: "home", club: "own:0", advised: "own:0", left_m: 2.5 });
  expect(shot.distance_m).toBeNull();
  const noted = async () => {
    const before = asked.length;
    fireEvent.click(screen.getByRole("button", { name: "Note the shot" }));
    await waitFor(() => expect(asked.slice(before).some(({ line }) => line.startsWith("POST"))).toBe(true));
    return JSON.parse(asked.slice(before).find(({ line }) => line.startsWith("POST"))?.body ?? "").shots.at(-1);
  };
  expect((await noted()).round).toBe(shot.round);
  await screen.findByText("2 shots noted for this round.");
  fireEvent.click(screen.getByRole("button", { name: "Begin another round of this day" }));
  expect(await noted()).toMatchObject({ on: shot.on, round: expect.not.stringMatching(shot.round) });
  await screen.findByText("1 shot noted for this round.");
});

it("a shot without an answer is sent again as it is; told otherwise since, the one that may have arrived is taken back", async () => {
  type Sent = { id: string; result: string; removed: boolean };
  const sent: Sent[][] = [];
  const answers = [
    () => Promise.reject(new TypeError("no network")),
    () => Promise.reject(new TypeError("no network")),
    () => Promise.reject(new TypeError("no network")),
    () => new Response(JSON.stringify({ code: "invalid", message: "is in the future", faults: [{ field: "shots.1.on", message: "", value: "" }] }), { status: 422, headers: { "Content-Type": "application/json" } }),
    () => Promise.reject(new TypeError("no network")),
    () => new Response(JSON.stringify({ taken: 1 }), { status: 200, headers: { "Content-Type": "application/json" } }),
  ]; // biome-ignore format: an answer a line
  vi.stubGlobal("fetch", async (request: Request) => {
    sent.push(JSON.parse(await request.text()).shots);
    return (answers.shift() as () => Response)();
  });
  const choices = [{ situation: "chip", ground: "home", name: "basic chip", advised: "pw" }];
  show(<NoteShots log={log({ choices, clubs_here: [{ code: "pw", name: "pitching wedge" }] })} />, store());
  const note = async (times: number) => {
    await waitFor(() => expect(screen.getByRole("button", { name: "Note the shot" }).hasAttribute("data-loading")).toBe(false)); // biome-ignore format: one line
    fireEvent.click(screen.getByRole("button", { name: "Note the shot" }));
    await waitFor(() => expect(sent).toHaveLength(times));
  };
  await note(1);
  await note(2);
  expect(sent[1]).toEqual(sent[0]);
  fireEvent.change(screen.getByLabelText("Result"), { target: { value: "heavy" } });
  await note(3);
  expect(sent[2]?.map(({ result, removed }) => [result, removed])).toEqual([["green", true], ["heavy", false]]); // biome-ignore format: one line
  expect(sent[2]?.[0]?.id).toBe(sent[0]?.[0]?.id);
  expect(sent[2]?.[1]?.id).not.toBe(sent[0]?.[0]?.id);
  await note(4);
  await screen.findByText("is in the future");
  // what the server refused is not in the log: it is not taken back; the one before it may be there still
  fireEvent.change(screen.getByLabelText("Result"), { target: { value: "thin" } });
  await note(5);
  expect(sent[4]?.map(({ result, removed }) => [result, removed])).toEqual([["green", true], ["thin", false]]); // biome-ignore format: one line
  fireEvent.change(screen.getByLabelText("Result"), { target: { value: "over" } });
  await note(6);
  expect(sent[5]?.map(({ result, removed }) => [result, removed])).toEqual([["green", true], ["thin", true], ["over", false]]); // biome-ignore format: one line
  expect(await screen.findByText("1 shot noted for this round.")).toBeTruthy();
});

it("a round is out of the log once the server has it so, and not before", async () => {
  let answer = () => new Response(JSON.stringify({ code: "busy", message: "try again" }), { status: 503, headers: { "Content-Type": "application/json" } }); // biome-ignore format: one line
  vi.stubGlobal("fetch", async () => answer());
  const round = { round: "r", on: "2026-05-01", shots: 3, by: "player", over: 0.2, unknown: 0, same_as: null };
  show(<Rounds log={log({ rounds: [round] })} />, store());
  const out = () => fireEvent.click(screen.getByRole("button", { name: "Take out the round of 1 May 2026" }));
  out();
  expect((await screen.findByRole("alert")).textContent).toBe("try again");
  expect(screen.queryByText(/is out of the log/)).toBeNull();
  answer = () => new Response("{}", { status: 200, headers: { "Content-Type": "application/json" } });
  out();
  expect(await screen.findByText(/The round of 1 May 2026 is out of the log/)).toBeTruthy();
});

it("what is due is put off with a reason, or looked at", async () => {
  const due = {
    key: "grips",
    on: "2026-01-01",
    words: "Have the grips looked at",
    why: "40 rounds",
    put_off: "",
    late: true,
  };
  const wear = {
    strikes: 500, worn: 0.1, spin_dry_rpm: 9000, spin_dry_now_rpm: 8900, spin_wet_rpm: 5000, spin_wet_now_rpm: 4800,
    run_more_wet_m: 0.3, strokes_round: 0.01,
  }; // biome-ignore format: one line a thing
  server({
    "GET after": { since: "2025-03-01", since_words: "built", due: [due], drifts: [], drift_strokes_round: 0, wear },
  });
  show(<Rechecks />, store());
  expect(await screen.findByText("1 thing is due")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: /Looked at today/ }));
  const day = today();
  expect(edit.mock.lastCall).toEqual(["after", { ...AFTER, looked_at: [{ key: "grips", on: day }] }]);
  fireEvent.click(screen.getByRole("button", { name: /Put off/ }));
  const put = screen.getByRole("button", { name: "Put it off" });
  fireEvent.change(screen.getByLabelText("Until"), { target: { value: "2027-05-01" } });
  expect(put.hasAttribute("disabled")).toBe(true);
  fireEvent.change(screen.getByLabelText("Why"), { target: { value: " away " } });
  fireEvent.click(put);
  const snoozes = [{ key: "grips", until: "2027-05-01", reason: "away" }];
  expect(edit.mock.lastCall).toEqual(["after", { ...AFTER, snoozes }]);
});
