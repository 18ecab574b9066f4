import "fake-indexeddb/auto";
import { act, fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { Session } from "../api/client";
import { actsLeft, forgetActs, keepAct } from "../strikes/actStore";
import { showAlone } from "../testing/show";
import SignInSheet from "./SignInSheet";
import { SignOut } from "./SignOut";
import { SessionProvider, useSession, useStanding } from "./session";

const me = { csrf_token: "t", fitter: "Ada", fitter_id: "me", email: "ada@example.com" } as unknown as Session;
const asked: string[] = [];
let answer: (method: string) => Response;
const json = (body: object, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });

beforeEach(async () => {
  asked.length = 0;
  localStorage.clear();
  await forgetActs("me");
  answer = () => json({ csrf_token: "u", fitter: null, fitter_id: null });
  vi.stubGlobal("fetch", async (request: Request) => {
    asked.push(request.method);
    return answer(request.method);
  });
});
const leave = vi.fn();
const shown = (children: React.ReactNode, session = me) =>
  showAlone(<SessionProvider session={session}>{children}</SessionProvider>);

it("signs out at once when everything is on the server", async () => {
  leave.mockClear();
  shown(<SignOut onLeave={leave} />);
  fireEvent.click(screen.getByRole("button", { name: "Sign out" }));
  await waitFor(() => expect(leave).toHaveBeenCalled());
  expect(asked).toContain("DELETE");
});

it("says first what would be lost, and keeps it unless it is let go", async () => {
  leave.mockClear();
  await keepAct("me", "f", { kind: "undo", id: "a" });
  localStorage.setItem("oblatus-draft-me-00000000-0000-0000-0000-000000000000-tab", "{}");
  shown(<SignOut onLeave={leave} />);
  fireEvent.click(screen.getByRole("button", { name: "Sign out" }));
  expect(await screen.findByText(/1 strike and edits of 1 fitting are on the way/)).toBeTruthy();
  expect(asked).toEqual([]);
  fireEvent.click(screen.getByRole("button", { name: "Keep here and sign out" }));
  await waitFor(() => expect(leave).toHaveBeenCalled());
  expect(localStorage.getItem("oblatus-draft-me-00000000-0000-0000-0000-000000000000-tab")).toBe("{}");
});

it("what is let go is gone, of strikes that were said more of each once", async () => {
  leave.mockClear();
  await keepAct("me", "f", { kind: "undo", id: "a" });
  await keepAct("me", "f", { kind: "back", id: "a" });
  await keepAct("somebody", "f", { kind: "undo", id: "b" });
  shown(<SignOut onLeave={leave} />);
  fireEvent.click(screen.getByRole("button", { name: "Sign out" }));
  expect(await screen.findByText(/^1 strike is on the way. Kept here, it is sent when/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Stay" }));
  await waitFor(() => expect(screen.queryByText(/on the way/)).toBeNull());
  fireEvent.click(screen.getByRole("button", { name: "Sign out" }));
  fireEvent.click(await screen.findByRole("button", { name: "Let go and sign out" }));
  await waitFor(() => expect(leave).toHaveBeenCalled());
  expect([await actsLeft("me"), (await actsLeft("somebody")).length]).toEqual([[], 1]);
  await forgetActs("somebody");
});

it("does not say that it signed out when nothing answers", async () => {
  leave.mockClear();
  answer = () => {
    throw new TypeError("no network");
  };
  shown(<SignOut onLeave={leave} />);
  fireEvent.click(screen.getByRole("button", { name: "Sign out" }));
  expect(await screen.findByRole("alert")).toBeTruthy();
  expect(leave).not.toHaveBeenCalled();
});

function Told() {
  const { ended, round } = useStanding();
  return (
    <p>
      {ended ?? "open"} {round}
    </p>
  );
}

it("ends in every tab at once, and goes on when the same fitter is signed in again", async () => {
  const { again } = shown(<Told />);
  expect(screen.getByText("open 0")).toBeTruthy();
  const channel = new BroadcastChannel("oblatus-session");
  act(() => channel.postMessage({ kind: "out" }));
  expect(await screen.findByText("signed_out 0")).toBeTruthy();
  again(<SessionProvider session={{ ...me, csrf_token: "new" }}>{<Told />}</SessionProvider>);
  expect(await screen.findByText("open 1")).toBeTruthy();
  again(<SessionProvider session={{ ...me, fitter_id: "another" } as Session}>{<Told />}</SessionProvider>);
  expect(await screen.findByText("other_fitter 1")).toBeTruthy();
  channel.close();
});

function Whole() {
  const { data } = useSession();
  return data?.fitter_id ? <SessionProvider session={data}>{<SignInSheet ended="signed_out" session={me} onLeave={leave} />}<Told /></SessionProvider> : null; // biome-ignore format: one line
}

it("a question of before the sign-in is given up: its answer would take the cookie, and end the session again", async () => {
  const open: AbortSignal[] = [];
  vi.stubGlobal("fetch", async (request: Request, init?: RequestInit) => {
    if (request.method === "POST") return json({ ...me, csrf_token: "new" });
    if (!init?.signal) return json({ csrf_token: "u", fitter_id: null }); // the sign-in's own
    open.push(init.signal);
    return open.length === 1 ? json(me) : new Promise<Response>(() => {});
  });
  const { client } = showAlone(<Whole />);
  expect(await screen.findByText("open 0")).toBeTruthy();
  act(() => void client.invalidateQueries({ queryKey: ["session"] }));
  await waitFor(() => expect(open).toHaveLength(2));
  fireEvent.change(screen.getByLabelText("Password"), { target: { value: "chalk" } });
  fireEvent.click(screen.getByRole("button", { name: "Sign in" }));
  expect(await screen.findByText("open 1")).toBeTruthy();
  expect(open[1]?.aborted).toBe(true);
});

it("names whose page it is when somebody else signed in", () => {
  shown(<SignInSheet ended="other_fitter" session={me} onLeave={leave} />);
  expect(screen.getByText(/This page is still Ada's/)).toBeTruthy();
  expect(screen.getByLabelText("E-mail")).toHaveProperty("value", "ada@example.com");
});
