import { describe, expect, it } from "vitest";
import type { Proof, ProofBall } from "../../api/client";
import type { Act } from "../../strikes/actStore";
import { ballsAhead, blockNow, nameOf, outAhead } from "./useProofs";

const ball = (id: string, block = 0) =>
  ({ id, club: 0, situation: 0, block, outcome: "good", set_aside: null }) as ProofBall;
const proof = (...balls: ProofBall[]) =>
  ({
    document: { id: "p", balls, balls_per_block: 3 },
    taken_out: [],
    plan: { blocks: [{ place: 0 }, { place: 1 }] },
  }) as unknown as Proof;
const ahead = (...acts: object[]) => acts.map((act) => ({ proof: "p", ...act })) as unknown as Act[];

describe("balls ahead of the server", () => {
  it("adds what waits, once, and nothing of another proof", () => {
    const acts = ahead({ kind: "ball", ball: ball("b") }, { kind: "ball", ball: ball("a") });
    const other = { kind: "ball", proof: "q", ball: ball("c") } as unknown as Act;
    expect(ballsAhead(proof(ball("a")), [...acts, other]).map((b) => b.id)).toEqual(["a", "b"]);
  });

  it("sets aside and takes out in the order in which it was done", () => {
    const acts = ahead(
      { kind: "ball", ball: ball("b") },
      { kind: "ball_tell", id: "a", changes: { set_aside: "misread" } },
      { kind: "ball_tell", id: "b", changes: { out: true } },
    );
    const found = ballsAhead(proof(ball("a")), acts);
    expect(found.map((b) => [b.id, b.set_aside])).toEqual([["a", "misread"]]);
  });

  it("puts back what was taken out, by the server's answer or by an act that still waits", () => {
    const before = { ...proof(ball("a")), taken_out: [ball("z")] } as Proof;
    expect(outAhead(before, []).map((b) => b.id)).toEqual(["z"]);
    const out = ahead({ kind: "ball_tell", id: "a", changes: { out: true } });
    expect(outAhead(before, out).map((b) => b.id)).toEqual(["z", "a"]);
    const back = ["a", "z"].map((id) => ({ kind: "ball_tell", id, changes: { out: false } }));
    const acts = [...out, ...ahead(...back)];
    expect(ballsAhead(before, acts).map((b) => b.id)).toEqual(["a", "z"]);
    expect(outAhead(before, acts)).toEqual([]);
  });

  it("stays in a block until its balls count", () => {
    const full = [ball("a"), ball("b"), { ...ball("c"), set_aside: "disturbed" }];
    expect(blockNow(proof(), full)?.place).toBe(0);
    expect(blockNow(proof(), [...full, ball("d")])?.place).toBe(1);
  });
});

it("a proof is called by its day, and by its place on it where there are several", () => {
  const made = (made_on: string) => ({ document: { made_on } }) as unknown as Proof;
  const known = [made("2026-11-29"), made("2026-11-29"), made("2026-10-03")];
  expect(known.map((one) => nameOf(one, known))).toEqual(["29 Nov 2026, 2", "29 Nov 2026, 1", "3 Oct 2026"]);
});
