import { Button } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Proof, unwrap } from "../../api/client";
import { useStore } from "../../app/context";
import { Closing, ProofRuler } from "../../pictures/ProofRuler/ProofRuler";
import { useQueue } from "../../strikes/queue";
import { QueueState } from "../../strikes/StrikeList";
import { counted, showPercent } from "../../units/units";
import parts from "../parts/parts.module.css";
import { outKey } from "../parts/useOut";
import { BallEntry } from "./BallEntry";
import { BlockStrip } from "./BlockStrip";
import { Counts } from "./Counts";
import { Feel } from "./Feel";
import { FromMonitor } from "./FromMonitor";
import classes from "./Proof.module.css";
import { BallTable, ComparisonTable } from "./ProofTables";
import { ballsAhead, blockNow, LETTERS, outAhead } from "./useProofs";

/** A proof that is planned: what it says so far, the next ball, what was hit. */
export function Running({ proof, onGone }: { proof: Proof; onGone: () => void }) {
  const { server, edit } = useStore();
  const client = useQueryClient();
  const queue = useQueue();
  const [table, setTable] = useState(false);
  useHotkeys([["b", () => setTable((shown) => !shown)]]);
  const { document, verdict, plan } = proof;
  const balls = ballsAhead(proof, queue.ahead);
  const block = blockNow(proof, balls);
  const club = block && document.candidates[block.club];
  const situation = block && document.situations[block.situation];
  const begun = balls.some((ball) => ball.block === block?.place);
  // what the model expects is hidden while a block is open, if the fitter wants it so
  const shown = !document.hide_model || !block || !begun;
  const last = balls.at(-1);
  const undo = () =>
    last && queue.prove({ kind: "ball_tell", proof: document.id, id: last.id, changes: { out: true } });
  const remove = useMutation({
    mutationFn: () =>
      unwrap(
        api.DELETE("/api/fittings/{fitting_id}/proofs/{proof_id}", {
          params: { path: { fitting_id: server.id, proof_id: document.id } },
        }),
      ),
    onSuccess: async () => {
      // what it showed goes out of the proposal with it
      edit("evidence", (now) => now.filter((one) => one.source_id !== document.id));
      void client.invalidateQueries({ queryKey: outKey(server.id) });
      await client.invalidateQueries({ queryKey: ["proofs", server.id] });
      onGone();
    },
  });
  const simulated = balls.filter((ball) => ball.simulated && ball.set_aside === null).length;
  const left = plan.balls - balls.filter((ball) => ball.set_aside === null).length;
  return (
    <>
      <section className={classes.said} aria-live="polite">
        <p className={classes.words}>{verdict.words}</p>
        <Chances proof={proof} />
        {[...verdict.findings, ...proof.replaced].map((finding) => (
          <p key={finding} className={classes.note}>
            {finding}
          </p>
        ))}
      </section>
      <BlockStrip proof={proof} balls={balls} now={block?.place ?? null} />
      {block && club && situation ? (
        <>
          <p className={classes.now}>
            <strong>
              {LETTERS[block.club]}: {club.name}
            </strong>
            {situation.name}, {situation.ground} · {left} of {plan.balls} to hit
            {simulated > 0 && `, ${simulated} of those hit simulated`}
          </p>
          <FromMonitor proof={proof} block={block} balls={balls} />
          <BallEntry
            proof={proof}
            block={block}
            here={balls.filter((ball) => ball.club === block.club && ball.situation === block.situation)}
            onBall={(ball) => queue.prove({ kind: "ball", proof: document.id, ball })}
            onUndo={undo}
          />
        </>
      ) : (
        <p className={classes.now}>
          <strong>The plan is hit</strong>
          {counted(plan.balls, "ball")}
          {simulated > 0 && `, ${simulated} simulated`}
        </p>
      )}
      <TakenOut proof={proof} />
      <QueueState queue={queue} />
      {shown && <p className={classes.note}>Pale: what the model expects. A tick a ball, a row a block.</p>}
      <ProofRuler proof={proof} expected={shown} />
      <Closing proof={proof} expected={shown} />
      <Feel proof={proof} balls={balls} />
      <p className={classes.note}>
        {plan.words} One ball spreads by {verdict.sigma.toFixed(2)} strokes.{" "}
        <button type="button" className={parts.quietButton} aria-pressed={table} onClick={() => setTable(!table)}>
          <kbd>B</kbd> balls and comparisons
        </button>
      </p>
      <Counts proof={proof} />
      {table && (
        <>
          <ComparisonTable proof={proof} />
          <BallTable proof={proof} />
        </>
      )}
      <p className={classes.note}>
        <Button size="xs" variant="subtle" color="rust" loading={remove.isPending} onClick={() => remove.mutate()}>
          Take this proof out
        </Button>
        {remove.isError && <span role="alert">{remove.error.message}</span>}
      </p>
    </>
  );
}

/** Balls that were taken out; the last one comes back at a press. */
function TakenOut({ proof }: { proof: Proof }) {
  const queue = useQueue();
  const out = outAhead(proof, queue.ahead);
  const last = out.at(-1);
  if (!last) return null;
  const back = () => queue.prove({ kind: "ball_tell", proof: proof.document.id, id: last.id, changes: { out: false } });
  return (
    <p className={classes.note} role="status">
      {counted(out.length, "ball")} taken out.{" "}
      <Button size="xs" variant="default" onClick={back}>
        Put the last one back
      </Button>
    </p>
  );
}

/** How likely each pair's first club is the better one. */
function Chances({ proof }: { proof: Proof }) {
  const { document, verdict } = proof;
  const overall = verdict.comparisons.filter((c) => c.situation === null);
  if (verdict.advice === "none") return null;
  return overall.map((c) => {
    const [better, worse] = c.chance >= 0.5 ? [c.first, c.second] : [c.second, c.first];
    const chance = Math.max(c.chance, 1 - c.chance);
    return (
      <p key={`${c.first}${c.second}`} className={classes.chance}>
        <strong>{showPercent(chance)}</strong> that the {document.candidates[better]?.name} beats the{" "}
        {document.candidates[worse]?.name}: {Math.abs(c.mean).toFixed(2)} strokes a shot, 8 of 10 between{" "}
        {(c.chance >= 0.5 ? -c.high : c.low).toFixed(2)} and {(c.chance >= 0.5 ? -c.low : c.high).toFixed(2)};{" "}
        {Math.abs(c.a_round).toFixed(2)} a round
      </p>
    );
  });
}
