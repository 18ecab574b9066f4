import { Button } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Proof, unwrap } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { ToCome } from "../../app/ToCome";
import { Closing, ProofRuler } from "../../pictures/ProofRuler/ProofRuler";
import { useQueue } from "../../strikes/queue";
import { QueueState } from "../../strikes/StrikeList";
import { showPercent } from "../../units/units";
import parts from "../parts/parts.module.css";
import { StepHead } from "../parts/StepHead";
import { BallEntry } from "./BallEntry";
import { BlockStrip } from "./BlockStrip";
import { FromMonitor } from "./FromMonitor";
import { PlanForm } from "./PlanForm";
import classes from "./Proof.module.css";
import { BallTable, ComparisonTable } from "./ProofTables";
import { ballsAhead, blockNow, LETTERS, missingOf, nameOf, outAhead, useProofs } from "./useProofs";

/** Candidates hit against one another in blocks: the plan, the next ball, and what the balls say so far. */
export default function ProofStep() {
  const { server } = useStore();
  const proofs = useProofs();
  const [at, setAt] = useState<string | "new" | null>(null);
  const [gone, setGone] = useState<string | null>(null);
  const known = proofs.data?.proofs ?? [];
  const proof = at === "new" ? undefined : (known.find((one) => one.document.id === at) ?? known[0]);
  const result = server.recommendation;
  return (
    <>
      <StepHead title="Proof" aside={known.length > 1 ? `${known.length} proofs` : undefined}>
        {known.length > 0 && (
          <Button size="xs" variant="default" onClick={() => setAt(at === "new" ? null : "new")}>
            {at === "new" ? "Back to the proof" : "Plan another"}
          </Button>
        )}
        {known.length > 1 &&
          at !== "new" &&
          known.map((one) => (
            <Button
              key={one.document.id}
              size="xs"
              variant={one === proof ? "filled" : "default"}
              onClick={() => setAt(one.document.id)}
            >
              {nameOf(one, known)}
            </Button>
          ))}
      </StepHead>
      {gone && <PutBack proof={gone} onBack={() => setGone(null)} />}
      {proofs.isError && (
        <p role="alert" className={classes.note}>
          {proofs.error.message}
        </p>
      )}
      {proof ? (
        <Running
          key={proof.document.id}
          proof={proof}
          onGone={() => {
            setAt(null);
            setGone(proof.document.id);
          }}
        />
      ) : result ? (
        <>
          <p className={classes.teach}>
            A proposal is a claim. Choose what is to be hit against what; blocks alternate so that warming up and tiring
            favour nobody, and no ball is the best one.
          </p>
          <PlanForm result={result} onPlanned={() => setAt(null)} />
        </>
      ) : server.to_come ? (
        <ToCome />
      ) : (
        <p className={classes.teach}>Without a proposal there is nothing to prove: see what is missing at the right.</p>
      )}
    </>
  );
}

/** A proof that was taken out comes back at a press. */
function PutBack({ proof, onBack }: { proof: string; onBack: () => void }) {
  const { server } = useStore();
  const client = useQueryClient();
  const back = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST("/api/fittings/{fitting_id}/proofs/{proof_id}/back", {
          params: { path: { fitting_id: server.id, proof_id: proof } },
        }),
      ),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ["proofs", server.id] });
      onBack();
    },
  });
  return (
    <p className={classes.note} role="status">
      The proof is taken out.{" "}
      <Button size="xs" variant="default" loading={back.isPending} onClick={() => back.mutate()}>
        Put it back
      </Button>
      {back.isError && ` ${back.error.message}`}
    </p>
  );
}

function Running({ proof, onGone }: { proof: Proof; onGone: () => void }) {
  const { server, draft, edit } = useStore();
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
      const others = draft.evidence.filter((one) => one.source_id !== document.id);
      if (others.length < draft.evidence.length) edit("evidence", others);
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
            key={block.place}
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
          {plan.balls} balls{simulated > 0 && `, ${simulated} simulated`}
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
      {out.length} {out.length === 1 ? "ball" : "balls"} taken out.{" "}
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

/** How the last full block felt, 1 to 5. */
function Feel({ proof, balls }: { proof: Proof; balls: ReturnType<typeof ballsAhead> }) {
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

/** Whether the proof counts in the proposal, and the press that lets it. */
function Counts({ proof }: { proof: Proof }) {
  const { server, draft, edit } = useStore();
  const { document, verdict } = proof;
  const mine = draft.evidence.filter((one) => one.source_id === document.id);
  const others = draft.evidence.filter((one) => one.source_id !== document.id);
  const count = useMutation({
    mutationFn: () =>
      unwrap(
        api.GET("/api/fittings/{fitting_id}/proofs/{proof_id}/evidence", {
          params: { path: { fitting_id: server.id, proof_id: document.id } },
        }),
      ),
    onSuccess: ({ evidence }) => edit("evidence", [...others, ...evidence]),
  });
  if (verdict.advice === "none") return null;
  return (
    <section className={classes.counts} aria-label="In the proposal">
      {mine.length > 0 ? (
        <>
          <p>
            It counts in the proposal, in strokes a shot against the model:{" "}
            {mine
              .map(
                (one) =>
                  `${one.name} ${one.shots
                    .map((s) => `${s.strokes > 0 ? "+" : "−"}${Math.abs(s.strokes).toFixed(2)} in ${shotName(s.shot)}`)
                    .join(", ")}`,
              )
              .join("; ")}
            . In other situations on the same ground {TABLES.proved_elsewhere.other_situations} of it, on the other
            ground {TABLES.proved_elsewhere.other_surface}.
          </p>
          <Button size="xs" variant="default" onClick={() => edit("evidence", others)}>
            Let it count no more
          </Button>
          <Button size="xs" variant="default" loading={count.isPending} onClick={() => count.mutate()}>
            Count it as it stands now
          </Button>
        </>
      ) : (
        <Button loading={count.isPending} onClick={() => count.mutate()}>
          Let it count in the proposal
        </Button>
      )}
      {count.isError && (
        <span role="alert" className={classes.note}>
          {count.error.message}
        </span>
      )}
    </section>
  );
}

const shotName = (key: string) => TABLES.shots.find((shot) => shot.key === key)?.name ?? key;
