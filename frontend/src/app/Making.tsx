import { Button } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { api, unwrap } from "../api/client";
import { useStore } from "./context";
import classes from "./SetBench.module.css";

/** A count while the engine makes families for heads or ground it has not met, and a way to stop what is made ahead. */
export function Making() {
  const { saveState, server } = useStore();
  const saving = saveState === "saving" || server.to_come;
  const work = useQuery({
    queryKey: ["work"],
    refetchInterval: (query) => {
      const now = query.state.data;
      return saving || (now && now.ahead_total + now.laws_total > 0) ? 500 : 5000;
    },
    queryFn: () => unwrap(api.GET("/api/engine/work")),
  });
  const stop = useMutation({
    mutationFn: () => unwrap(api.DELETE("/api/engine/work")),
    onSuccess: () => work.refetch(),
  });
  if (!work.data || work.isError) return null; // how far it was is not how far it is
  const { done, total, ahead_done, ahead_total, laws_done, laws_total } = work.data;
  if (saving && total > 0) {
    return (
      <p className={classes.note} role="status">
        New ground or heads: {done} of {total} worked out
      </p>
    );
  }
  if (laws_total > 0) {
    return (
      <p className={classes.note} role="status">
        How sure: {laws_done} of {laws_total} trials of the ground model
      </p>
    );
  }
  if (ahead_total === 0) return null;
  return (
    <p className={classes.making}>
      <span>
        Getting ready for other heads: {ahead_done} of {ahead_total}
      </span>
      <Button size="compact-sm" variant="default" disabled={stop.isPending} onClick={() => stop.mutate()}>
        Stop
      </Button>
      {stop.isError && <span role="alert">{stop.error.message}</span>}
    </p>
  );
}
