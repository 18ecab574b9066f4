import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { api, type Proof, unwrap } from "../../api/client";
import { namedIn, TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import classes from "./Proof.module.css";

/** Whether the proof counts in the proposal, and the press that lets it. */
export function Counts({ proof }: { proof: Proof }) {
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
    onSuccess: ({ evidence }) =>
      edit("evidence", (now) => [...now.filter((one) => one.source_id !== document.id), ...evidence]),
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

const shotName = (key: string) => namedIn(TABLES.shots, key);
