import { Button } from "@mantine/core";
import type { Proof } from "../../api/client";
import { useQueue } from "../../strikes/queue";
import classes from "./Proof.module.css";
import { type ballsAhead, missingOf } from "./useProofs";

/** How the last full block felt, 1 to 5. */
export function Feel({ proof, balls }: { proof: Proof; balls: ReturnType<typeof ballsAhead> }) {
  const queue = useQueue();
  const { document, plan } = proof;
  const full = plan.blocks.filter((block) => missingOf(proof, block.place, balls) === 0).at(-1);
  if (!full) return null;
  const ahead = queue.ahead.filter(
    (act) => act.kind === "feel" && act.proof === document.id && act.block === full.place,
  );
  const last = ahead.at(-1);
  const value = last?.kind === "feel" ? last.value : full.feel;
  return (
    <div className={classes.feel} role="group" aria-label="Feel of the last block">
      <span>
        How did the {document.candidates[full.club]?.name} feel, block {full.place + 1}?
      </span>
      {[1, 2, 3, 4, 5].map((one) => (
        <Button
          key={one}
          size="sm"
          variant={one === value ? "filled" : "default"}
          onClick={() =>
            queue.prove({ kind: "feel", proof: document.id, id: document.id, block: full.place, value: one })
          }
        >
          {one}
        </Button>
      ))}
    </div>
  );
}
