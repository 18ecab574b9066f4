import { screen, waitFor } from "@testing-library/react";
import type { ReactElement } from "react";
import { beforeEach, expect, it, vi } from "vitest";
import type { Proof, ProofBall } from "../../api/client";
import { newStrike } from "../../strikes/newStrike";
import { inFitting, show } from "../../testing/show";
import { FromMonitor } from "./FromMonitor";

const { prove } = vi.hoisted(() => ({ prove: vi.fn() }));
vi.mock("../../strikes/queue", () => ({ useQueue: () => ({ prove }) }));

const BLOCK = { place: 1, club: 1, situation: 0 };
const PROOF = {
  document: { id: "p", balls_per_block: 2, candidates: [{ code: "own:1" }, { code: "BN55@55" }] },
  plan: { blocks: [BLOCK], stations: ["pitch"] },
} as unknown as Proof;
let strikes: object[] = [];
beforeEach(() => {
  strikes = [];
  prove.mockClear();
  vi.stubGlobal("fetch", async (request: Request) => {
    const body = request.url.endsWith("/session") ? { strikes } : { available: true, wanted: false };
    return new Response(JSON.stringify(body), { headers: { "Content-Type": "application/json" } });
  });
});
const hit = (id: string, change: object = {}) => ({
  ...newStrike("BN55", 55, "pitch"), id, carry_m: 40.5, origin: "device", simulated: true, ...change,
}); // biome-ignore format: one line
const ball = (id: string, set_aside: string | null = null) => ({ id, block: 1, club: 1, situation: 0, set_aside }) as unknown as ProofBall; // biome-ignore format: one line
const page = (balls: ProofBall[], revision = 1) =>
  show(<FromMonitor proof={PROOF} block={BLOCK as never} balls={balls} />, { server: { id: "f", revision } });
const taken = () => prove.mock.calls.map(([act]) => act.ball.id);

/** The page opened, then a strike hit: it asks again as it does at word of a strike. */
async function after(before: object[], now: object[], balls: ProofBall[]) {
  strikes = before;
  const { client } = page(balls);
  await screen.findByText("Strike monitor off");
  await new Promise((done) => setTimeout(done, 30));
  strikes = [...before, ...now];
  await client.invalidateQueries();
}

it("a strike of the block's club and station is its next ball, with what was measured of it", async () => {
  await after([hit("old")], [hit("new"), hit("other", { club: "own:1" }), hit("typed", { origin: "typed" })], []);
  await waitFor(() => expect(taken()).toEqual(["new"]));
  expect(prove.mock.lastCall?.[0]).toMatchObject({
    kind: "ball",
    proof: "p",
    ball: { block: 1, club: 1, situation: 0, carry_m: 40.5, simulated: true, origin: "device", outcome: null },
  });
});

it("a ball that was set aside is hit again: the strike that comes for it is taken", async () => {
  await after([], [hit("again"), hit("one too many")], [ball("a"), ball("b", "misread")]);
  await waitFor(() => expect(taken()).toEqual(["again"]));
});

it("a block that is full takes none", async () => {
  await after([], [hit("late")], [ball("a"), ball("b")]);
  await new Promise((done) => setTimeout(done, 40));
  expect(taken()).toEqual([]);
});

it("what is hit beyond a full block is no ball of a later block with the same club", async () => {
  const other = { place: 2, club: 0, situation: 0 };
  const later = { place: 3, club: 1, situation: 0 };
  const at = (block: object, balls: ProofBall[]) => <FromMonitor proof={PROOF} block={block as never} balls={balls} />;
  const shown = show(at(BLOCK, []), { server: { id: "f", revision: 1 } });
  const store = (part: ReactElement) => inFitting(part, { server: { id: "f", revision: 1 } });
  await screen.findByText("Strike monitor off");
  await new Promise((done) => setTimeout(done, 30));
  strikes = [hit("1"), hit("2"), hit("beyond")];
  await shown.client.invalidateQueries();
  await waitFor(() => expect(taken()).toEqual(["1", "2"]));
  const full = [ball("1"), ball("2")];
  shown.again(store(at(other, full)));
  strikes = [...strikes, hit("3", { club: "own:1" }), hit("4", { club: "own:1" })];
  await shown.client.invalidateQueries();
  await waitFor(() => expect(taken()).toEqual(["1", "2", "3", "4"]));
  shown.again(store(at(later, full)));
  await new Promise((done) => setTimeout(done, 30));
  strikes = [...strikes, hit("5")];
  await shown.client.invalidateQueries();
  await waitFor(() => expect(taken()).toEqual(["1", "2", "3", "4", "5"]));
});
