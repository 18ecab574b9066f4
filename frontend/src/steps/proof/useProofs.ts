import { useQuery } from "@tanstack/react-query";
import { api, type Proof, type ProofBall, unwrap } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import type { Act } from "../../strikes/actStore";
import { showDay } from "../../units/days";

export type Outcome = NonNullable<ProofBall["outcome"]>;

/** Outcomes in the order in which they are offered. */
export const OUTCOMES = TABLES.outcomes;

/** An outcome is told by its first letter. */
export const hotkeyOf = (outcome: Outcome) => outcome.charAt(0);

/** Reasons that are not the result: a mishit counts as what it was. */
export const ASIDE = ["misread", "disturbed", "wrong club", "another lie"] as const;

export const LETTERS = ["A", "B", "C", "D"];

/** The proofs of this fitting, newest first. */
export function useProofs() {
  const { server } = useStore();
  return useQuery({
    queryKey: ["proofs", server.id],
    queryFn: () =>
      unwrap(api.GET("/api/fittings/{fitting_id}/proofs", { params: { path: { fitting_id: server.id } } })),
  });
}

/** A proof by its day; several of one day are counted, the first is 1. They come newest first. */
export function nameOf(proof: Proof, known: readonly Proof[]): string {
  const sameDay = known.filter(({ document }) => document.made_on === proof.document.made_on);
  const day = showDay(proof.document.made_on);
  return sameDay.length > 1 ? `${day}, ${sameDay.length - sameDay.indexOf(proof)}` : day;
}

/** The balls of a proof as they will be once everything that is ahead of the server's answer is in it. */
export function ballsAhead(proof: Proof, ahead: readonly Act[]): ProofBall[] {
  const found = new Map(proof.document.balls.map((ball) => [ball.id, ball]));
  const out = new Map(proof.taken_out.map((ball) => [ball.id, ball]));
  for (const act of ahead) {
    if (!("proof" in act) || act.proof !== proof.document.id) continue;
    if (act.kind === "ball") found.set(act.ball.id, found.get(act.ball.id) ?? act.ball);
    if (act.kind !== "ball_tell") continue;
    const ball = found.get(act.id) ?? out.get(act.id);
    if (ball && act.changes.out) out.set(act.id, ball);
    if (act.changes.out) found.delete(act.id);
    else if (ball && act.changes.out === false) found.set(act.id, ball);
    else if (ball && act.changes.set_aside !== undefined)
      found.set(act.id, { ...ball, set_aside: act.changes.set_aside });
  }
  return [...found.values()];
}

/** The balls that are taken out, the last one last, once everything that is ahead is in it. */
export function outAhead(proof: Proof, ahead: readonly Act[]): ProofBall[] {
  const found = new Map(proof.taken_out.map((ball) => [ball.id, ball]));
  const hit = new Map(proof.document.balls.map((ball) => [ball.id, ball]));
  for (const act of ahead) {
    if (!("proof" in act) || act.proof !== proof.document.id) continue;
    if (act.kind === "ball") hit.set(act.ball.id, act.ball);
    if (act.kind !== "ball_tell") continue;
    const ball = hit.get(act.id);
    if (act.changes.out === false) found.delete(act.id);
    else if (act.changes.out && ball) found.set(act.id, ball);
  }
  return [...found.values()];
}

/** How many balls a block still asks for: those that were set aside are hit again. */
export const missingOf = (proof: Proof, block: number, balls: readonly ProofBall[]) =>
  Math.max(
    proof.document.balls_per_block - balls.filter((ball) => ball.block === block && ball.set_aside === null).length,
    0,
  );

/** The first block that is not full, or none once the plan is hit. */
export const blockNow = (proof: Proof, balls: readonly ProofBall[]) =>
  proof.plan.blocks.find((block) => missingOf(proof, block.place, balls) > 0);
