import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import type { ReactNode } from "react";
import { useLocation } from "react-router";
import { beforeEach, expect, it, vi } from "vitest";
import type { Session } from "../api/client";
import { SessionProvider } from "../session/session";
import { showAlone } from "../testing/show";
import Account from "./Account";
import Claims from "./Claims";
import Players from "./Players";

const SESSION = {
  csrf_token: "t",
  fitter: "Ada Fitter",
  fitter_id: "me",
  studio: "Scarp End Studio",
  email: "ada@scarp-end.example",
  demo: false,
} as unknown as Session;

/** The line by which the server tells of changes. */
class Line {
  static last: Line;
  static readonly CLOSED = 2;
  heard: Record<string, (event: { data: string }) => void> = {};
  constructor() {
    Line.last = this;
  }
  addEventListener(name: string, act: (event: { data: string }) => void) {
    this.heard[name] = act;
  }
  close() {}
}
beforeEach(() => {
  vi.stubGlobal("EventSource", Line);
});

/** A stand-in server by whole address; what was asked is kept. */
function api(answers: Record<string, unknown>) {
  const asked: { line: string; body: string }[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const line = `${request.method} ${new URL(request.url).pathname}`;
    asked.push({ line, body: request.method === "GET" ? "" : await request.text() });
    const value = await answers[line];
    if (value instanceof Response) return value.clone();
    if (value === null) return new Response(null, { status: 204 });
    if (value === undefined) return new Response(JSON.stringify({ code: "x", message: "not there" }), { status: 404 });
    return new Response(JSON.stringify(value), { headers: { "Content-Type": "application/json" } });
  });
  return asked;
}

const line = (player_name: string, change = {}) => ({
  id: player_name, player_name, updated_at: "2026-05-01T10:00:00Z", kept_at: null, kept_clubs: [], due_on: null, due_words: "",
  due_late: false, followed: false, ...change,
}); // biome-ignore format: one line a few things
const LINES = [
  line("Tam", { kept_at: "2026-03-01T10:00:00Z", kept_clubs: ["50° gap"] }),
  line("Ines", { due_on: "2026-04-01", due_words: "lofts", due_late: true }),
  line("Orla", { kept_at: "2026-04-01T10:00:00Z", kept_clubs: ["56° sand"], due_on: "2026-12-03", due_words: "grips" }),
];
const players = () =>
  showAlone(
    <SessionProvider session={SESSION}>
      <Players session={SESSION} onLeave={vi.fn()} />
    </SessionProvider>,
  );
const names = () => within(screen.getByRole("region", { name: "Players" })).getAllByRole("listitem").map((one) => within(one).getAllByRole("link")[0]?.textContent); // biome-ignore format: one line

const Where = () => <output>{useLocation().pathname}</output>;

it("whoever opened another player while one is being started stays there", async () => {
  let arrive: (made: object) => void = () => {};
  const made = new Promise((done) => (arrive = done));
  api({
    "GET /api/fittings": { fittings: LINES },
    "GET /api/fittings/bin": { fittings: [] },
    "POST /api/fittings": made,
  });
  const page = (part: ReactNode) => <SessionProvider session={SESSION}>{part}<Where /></SessionProvider>; // biome-ignore format: one line
  const { again, client } = showAlone(page(<Players session={SESSION} onLeave={vi.fn()} />));
  fireEvent.change(screen.getByLabelText("New player"), { target: { value: "Piet" } });
  fireEvent.click(screen.getByRole("button", { name: "Start fitting" }));
  await waitFor(() => expect(client.isMutating()).toBe(1));
  again(page(<p>another player</p>));
  arrive({ id: "new" });
  await waitFor(() => expect(client.isMutating()).toBe(0));
  expect(screen.getByRole("status").textContent).toBe("/");
});

it("players are found by part of the name and put in order; how many are shown is said", async () => {
  api({ "GET /api/fittings": { fittings: LINES }, "GET /api/fittings/bin": { fittings: [] } });
  players();
  await screen.findByRole("link", { name: "Tam" });
  expect(names()).toEqual(["Tam", "Ines", "Orla"]);
  const order = (value: string) => fireEvent.change(screen.getByLabelText("In order of"), { target: { value } });
  order("name");
  expect(names()).toEqual(["Ines", "Orla", "Tam"]);
  order("kept");
  expect(names()).toEqual(["Orla", "Tam", "Ines"]);
  order("due");
  expect(names()).toEqual(["Ines", "Orla", "Tam"]);
  fireEvent.change(screen.getByLabelText("Find a player"), { target: { value: " OR" } });
  expect(names()).toEqual(["Orla"]);
  expect(screen.getByText("1 of 3 players")).toBeTruthy();
});

it("the list follows what others do", async () => {
  const answers = { "GET /api/fittings": { fittings: LINES }, "GET /api/fittings/bin": { fittings: [] } };
  api(answers);
  players();
  await screen.findByRole("link", { name: "Tam" });
  answers["GET /api/fittings"] = { fittings: [...LINES, line("Joss")] };
  Line.last.heard.change?.({ data: JSON.stringify({ fitting: null, revision: 0 }) });
  expect(await screen.findByRole("link", { name: "Joss" })).toBeTruthy();
});

it("a line says what was kept last and what is due, late or not", async () => {
  api({ "GET /api/fittings": { fittings: LINES }, "GET /api/fittings/bin": { fittings: [] } });
  players();
  const [tam, ines, orla] = (await screen.findAllByRole("listitem")).map((one) => one.textContent);
  expect(tam).toContain("kept 1 Mar 2026: 50° gap");
  expect(ines).toContain("nothing kept yet");
  expect(ines).toContain("lofts: due since 1 Apr 2026");
  expect(orla).toContain("grips: due 3 Dec 2026");
});

it("a player whose answer was lost is started again under the same id, the next one under another", async () => {
  const answers: Record<string, unknown> = {
    "GET /api/fittings": { fittings: [] },
    "GET /api/fittings/bin": { fittings: [] },
  };
  const asked = api(answers);
  players();
  const start = async (name: string) => {
    fireEvent.change(await screen.findByLabelText("New player"), { target: { value: name } });
    const sent = asked.length;
    fireEvent.click(screen.getByRole("button", { name: "Start fitting" }));
    await waitFor(() => expect(asked.slice(sent).map((one) => one.line)).toContain("POST /api/fittings"));
    const post = asked.slice(sent).find((one) => one.line === "POST /api/fittings");
    return JSON.parse(post?.body ?? "{}") as { id: string };
  };
  const lost = await start("Wren");
  await screen.findByRole("alert");
  answers["POST /api/fittings"] = { id: lost.id };
  expect((await start("Wren")).id).toBe(lost.id);
  await waitFor(() => expect(screen.queryByRole("alert")).toBeNull());
  expect((await start("Wren")).id).not.toBe(lost.id);
});

it("an empty studio teaches, and a player is removed only when it is said twice", async () => {
  const asked = api({
    "GET /api/fittings": { fittings: [] },
    "GET /api/fittings/bin": { fittings: [] },
  });
  players();
  expect(await screen.findByText(/No player yet/)).toBeTruthy();
  cleanup();
  const again = api({
    "GET /api/fittings": { fittings: LINES },
    "GET /api/fittings/bin": { fittings: [] },
    "DELETE /api/fittings/Tam": null,
  });
  players();
  await screen.findByRole("link", { name: "Tam" });
  fireEvent.click(screen.getAllByRole("button", { name: "Remove" })[0] as HTMLElement);
  const dialog = await screen.findByRole("dialog");
  expect(dialog.textContent).toContain("brought back for thirty days");
  fireEvent.click(within(dialog).getByRole("button", { name: "Keep" }));
  expect(again.some(({ line: one }) => one.startsWith("DELETE"))).toBe(false);
  await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  fireEvent.click(screen.getAllByRole("button", { name: "Remove" })[0] as HTMLElement);
  fireEvent.click(within(await screen.findByRole("dialog")).getByRole("button", { name: "Remove" }));
  await waitFor(() => expect(again.some(({ line: one }) => one === "DELETE /api/fittings/Tam")).toBe(true));
  expect(asked.some(({ line: one }) => one.startsWith("DELETE"))).toBe(false);
});

const score = (change = {}) => ({
  kind: "every change", claims: 4, shots: 210, claimed: 1.2, seen: 0.9, share: 0.75, low: 0.5, high: 1.1, ...change,
}); // biome-ignore format: one line
const SCORE = {
  every: score(),
  kinds: [score({ kind: "one head", claims: 3 })],
  claims: [{ player: "Joss", kind: "one head", claimed: 1.2, seen: 1.0, low: 0.2, high: 1.7, shots: 90 }],
  waiting: 2,
  claims_sd: 0.5,
  would_be: 0.42,
  held: { low: 0.527, high: 1.898 },
  would: { low: 0.584, high: 1.713 },
};

it("the studio's score is told with its doubt, and moves new fittings only at a press", async () => {
  const asked = api({ "GET /api/claims": SCORE, "PUT /api/claims": { ...SCORE, claims_sd: 0.42 } });
  showAlone(<Claims />);
  expect(await screen.findByText(/75 % of what was claimed came true/)).toBeTruthy();
  expect(screen.getByText(/2 players have a kept set and no shots/)).toBeTruthy();
  expect(screen.getByRole("table", { name: "Claims by kind of change" }).querySelectorAll("tbody tr")).toHaveLength(2);
  expect(screen.getByRole("table", { name: "Claims, player by player" }).textContent).toContain("0.20 to 1.70");
  expect(screen.getByText(/8 of 10 claims coming to 53 % to 190 % of what was claimed; by these claims it would be 58 % to 171 %/)).toBeTruthy(); // biome-ignore format: one sentence
  const take = screen.getByRole("button", { name: "Use it in new fittings" });
  fireEvent.click(take);
  await waitFor(() => expect(JSON.parse(asked.at(-1)?.body ?? "{}")).toEqual({ claims_sd: 0.42 }));
  await waitFor(() => expect(take.hasAttribute("disabled")).toBe(true));
});

it("nothing is claimed of claims that nobody can judge", async () => {
  api({ "GET /api/claims": { ...SCORE, every: null, kinds: [], claims: [], waiting: 1 } });
  showAlone(<Claims />);
  expect((await screen.findByText(/No claim can be judged yet/)).textContent).toContain("1 player has a kept set");
  expect(screen.queryByRole("table")).toBeNull();
});

const account = () =>
  showAlone(
    <SessionProvider session={SESSION}>
      <Account onLeave={vi.fn()} />
    </SessionProvider>,
  );
const place = (id: string, here: boolean) => ({
  id, this: here, browser: here ? "Chromium" : "Firefox", address: "127.0.0.1", created_at: "2026-05-01T10:00:00Z", seen_at: "2026-05-02T10:00:00Z",
}); // biome-ignore format: one line

it("this browser's session has no button to end it, others have", async () => {
  const asked = api({
    "GET /api/session/list": { sessions: [place("a", true), place("b", false)] },
    "DELETE /api/session/list/b": null,
  });
  account();
  await screen.findByText("Firefox");
  expect(screen.getByText("this browser")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "End" }));
  await waitFor(() => expect(asked.some(({ line: one }) => one === "DELETE /api/session/list/b")).toBe(true));
  expect(screen.getByRole("button", { name: "End the other one" })).toBeTruthy();
});

it("a password that is refused says so at its field and stays typed; one that is taken leaves none behind", async () => {
  const refused = {
    code: "invalid",
    message: "",
    faults: [{ field: "old", message: "is not your password", value: null }],
  };
  api({
    "GET /api/session/list": { sessions: [] },
    "PUT /api/session/password": new Response(JSON.stringify(refused), { status: 422 }),
  });
  account();
  const [old, next] = [
    screen.getByLabelText("Present password"),
    screen.getByLabelText("New password"),
  ] as HTMLInputElement[];
  fireEvent.change(old as HTMLElement, { target: { value: "chalk" } });
  fireEvent.change(next as HTMLElement, { target: { value: "flint and thyme" } });
  fireEvent.click(screen.getByRole("button", { name: "Change the password" }));
  expect(await screen.findByText("is not your password")).toBeTruthy();
  expect(next?.value).toBe("flint and thyme");
  api({ "GET /api/session/list": { sessions: [] }, "PUT /api/session/password": null });
  fireEvent.click(screen.getByRole("button", { name: "Change the password" }));
  expect(await screen.findByText(/Every other session has ended/)).toBeTruthy();
  expect([old?.value, next?.value]).toEqual(["", ""]);
});
