import { Button } from "@mantine/core";
import { useState } from "react";
import { useStore } from "../../app/context";
import { ToCome } from "../../app/ToCome";
import { useInSight } from "../../app/useInSight";
import { useRemembered } from "../../app/useRemembered";
import { StepHead } from "../parts/StepHead";
import { PlanForm } from "./PlanForm";
import classes from "./Proof.module.css";
import { ProofsOut, PutBack } from "./PutBack";
import { Running } from "./Running";
import { nameOf, useProofs } from "./useProofs";

/** Candidates hit against one another in blocks: the plan, the next ball, and what the balls say so far. */
export default function ProofStep() {
  const { server } = useStore();
  const proofs = useProofs();
  const [planning, setPlanning] = useRemembered("planning", false);
  const [gone, setGone] = useState<string | null>(null);
  const known = proofs.data?.proofs ?? [];
  const [proof, setAt] = useInSight("proof", planning ? [] : known, (one) => one.document.id);
  const result = server.recommendation;
  const wasPutBack = (id: string) => setGone((now) => (now === id ? null : now));
  return (
    <>
      <StepHead title="Proof" aside={known.length > 1 ? `${known.length} proofs` : undefined}>
        {known.length > 0 && (
          <Button size="xs" variant="default" onClick={() => setPlanning(!planning)}>
            {planning ? "Back to the proof" : "Plan another"}
          </Button>
        )}
        {known.length > 1 &&
          !planning &&
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
      {gone && <PutBack proof={gone} onBack={wasPutBack} />}
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
      ) : !planning && !proofs.data ? (
        // one may be running: no other is planned over it
        proofs.isPending && (
          <p role="status" className={classes.note}>
            Reading the proofs …
          </p>
        )
      ) : result ? (
        <>
          <p className={classes.teach}>
            A proposal is a claim. Choose what is to be hit against what; blocks alternate so that warming up and tiring
            favour nobody, and no ball is the best one.
          </p>
          <PlanForm
            result={result}
            onPlanned={(id) => {
              setAt(id);
              setPlanning(false);
            }}
          />
        </>
      ) : server.to_come ? (
        <ToCome />
      ) : (
        <p className={classes.teach}>Without a proposal there is nothing to prove: see what is missing at the right.</p>
      )}
      <ProofsOut onBack={wasPutBack} />
    </>
  );
}
