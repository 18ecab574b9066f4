import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { api, unwrap } from "../api/client";
import { useEvidence } from "../evidence/useEvidence";
import { useStopped } from "../evidence/useStopped";
import { useWork } from "../evidence/useWork";
import { useStore } from "./context";
import classes from "./SetBench.module.css";

/** A count while the engine makes families that it has not met or tries the ground model, and a way to stop it. */
export function Making() {
  const { saveState, server } = useStore();
  const saving = saveState === "saving" || server.to_come;
  const evidence = useEvidence();
  const { counts, look } = useWork(saving || evidence.isFetching);
  const { stopped, stop, again } = useStopped("evidence");
  const ahead = useMutation({
    mutationFn: () => unwrap(api.DELETE("/api/engine/work")),
    onSuccess: () => look(),
  });
  if (!counts) return null;
  if (saving && counts.asked.total > 0) {
    return (
      <p className={classes.making} role="status">
        New ground or heads: {counts.asked.done} of {counts.asked.total} worked out
      </p>
    );
  }
  if (evidence.isFetching && counts.laws.total > 0) {
    return (
      <p className={classes.making}>
        <span role="status">
          How sure: {counts.laws.done} of {counts.laws.total} trials of the ground model
        </span>
        <Button size="compact-sm" variant="default" onClick={stop}>
          Stop
        </Button>
      </p>
    );
  }
  if (stopped && (evidence.isPlaceholderData || !evidence.data)) {
    return (
      <p className={classes.making}>
        <span role="status">How sure: the trials of the ground model were stopped</span>
        <Button size="compact-sm" variant="default" onClick={again}>
          Try again
        </Button>
      </p>
    );
  }
  if (counts.ahead.total === 0) return null;
  return (
    <p className={classes.making}>
      <span>
        Getting ready for other heads: {counts.ahead.done} of {counts.ahead.total}
      </span>
      <Button size="compact-sm" variant="default" disabled={ahead.isPending} onClick={() => ahead.mutate()}>
        Stop
      </Button>
      {ahead.isError && <span role="alert">{ahead.error.message}</span>}
    </p>
  );
}
