import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { answerKey } from "../../api/answerKey";
import { api, type Kept, type KeptLine, unwrap } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import type { Section } from "../../app/drafts";
import parts from "../parts/parts.module.css";
import { Comparison } from "./Comparison";
import classes from "./Kept.module.css";
import { nameOf } from "./nameOf";

export const NOW = "now";

/** What differs, and the way back to the inputs of the one chosen. */
export function Side({ first, other }: { first: KeptLine; other: KeptLine | undefined }) {
  const { server, editAll } = useStore();
  const whole = (snapshot_id: string | undefined) => ({
    queryKey: ["kept", server.id, snapshot_id],
    enabled: snapshot_id !== undefined,
    queryFn: () =>
      unwrap(
        api.GET("/api/fittings/{fitting_id}/kept/{snapshot_id}", {
          params: { path: { fitting_id: server.id, snapshot_id: snapshot_id ?? "" } },
        }),
      ),
  });
  const one = useQuery(whole(first.id));
  const two = useQuery(whole(other?.id));
  const compared = useQuery({
    queryKey: [...answerKey("kept", server), "beside", first.id, other?.id ?? NOW],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/fittings/{fitting_id}/kept/{snapshot_id}/compare", {
          params: {
            path: { fitting_id: server.id, snapshot_id: first.id },
            query: other ? { other: other.id } : {},
          },
          signal,
        }),
      ),
  });
  // in one act, so that one Undo takes it back
  const reopen = ({ document }: Kept) =>
    editAll(
      Object.fromEntries(
        TABLES.proposal_sections.flatMap((name) => {
          const was = document[name as Section];
          return was === undefined ? [] : [[name, was]]; // an earlier program may have kept none
        }),
      ),
    );
  const failure = one.error ?? two.error ?? compared.error;
  return (
    <>
      {failure && (
        <p role="alert" className={classes.line}>
          {failure.message}
        </p>
      )}
      {one.data && (other ? two.data : true) && (
        <Comparison
          first={one.data}
          second={other ? (two.data?.result ?? null) : server.recommendation}
          name={other ? nameOf(other) : "Now"}
          differences={compared.data?.differences}
        />
      )}
      {one.data && (
        <p className={`${classes.line} ${classes.reopen}`}>
          <Button variant="default" onClick={() => one.data && reopen(one.data)}>
            Work on from this one
          </Button>
          <span className={parts.unit}>
            brings player, grounds, bag, choices, measuring and what proofs showed back as they were; strikes, the
            studio's rack, build, card and log stay as they are now. The kept proposal itself does not change, and Undo
            takes it back.
          </span>
        </p>
      )}
    </>
  );
}
