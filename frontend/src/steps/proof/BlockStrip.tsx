import type { Proof, ProofBall } from "../../api/client";
import classes from "./Proof.module.css";
import { LETTERS } from "./useProofs";

interface Props {
  proof: Proof;
  balls: readonly ProofBall[];
  now: number | null;
}

/** The plan as a strip of blocks: which club, on what, and how many of its balls are hit. */
export function BlockStrip({ proof, balls, now }: Props) {
  const { document, plan } = proof;
  return (
    <>
      <p className={classes.legend}>
        {document.situations.map((situation) => (
          <span key={`${situation.shot}|${situation.ground}`} data-surface={situation.surface}>
            {situation.name}, {situation.ground}
          </span>
        ))}
      </p>
      <ol className={classes.strip} aria-label="Blocks">
        {plan.blocks.map((block) => {
          const hit = balls.filter((ball) => ball.block === block.place && ball.set_aside === null).length;
          const situation = document.situations[block.situation];
          const club = document.candidates[block.club];
          return (
            <li
              key={block.place}
              data-on={block.place === now}
              data-surface={situation?.surface}
              data-done={hit >= document.balls_per_block}
              aria-current={block.place === now ? "step" : undefined}
              title={`${club?.name}, ${situation?.name}`}
            >
              <strong>{LETTERS[block.club]}</strong>
              <span>
                {hit}/{document.balls_per_block}
              </span>
            </li>
          );
        })}
      </ol>
    </>
  );
}
