import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Strike, unwrap } from "../api/client";
import { useStore } from "../app/context";
import { useQueue } from "./queue";
import classes from "./TakenOut.module.css";

/** Strikes that were taken out, to be put back; they count nowhere, and go for good after thirty days. */
export function TakenOut({ told }: { told: (strike: Strike) => string }) {
  const { server, did } = useStore();
  const queue = useQueue();
  const [open, setOpen] = useState(false);
  const list = useQuery({
    queryKey: ["taken-out", server.id, queue.waiting.length],
    enabled: open,
    queryFn: () =>
      unwrap(api.GET("/api/fittings/{fitting_id}/strikes/out", { params: { path: { fitting_id: server.id } } })),
  });
  const back = (strike: Strike) => {
    did({ kind: "strike", id: strike.id, out: false });
    queue.putBack(strike.id);
  };
  const strikes = list.data?.strikes ?? [];
  return (
    <details className={classes.out} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>Strikes taken out</summary>
      {list.isError && <p role="alert">{list.error.message}</p>}
      {list.data && strikes.length === 0 && (
        <p>None. A strike that is taken out can be put back here for thirty days.</p>
      )}
      <ul>
        {strikes.map((strike) => (
          <li key={strike.id}>
            <span>{told(strike)}</span>
            <Button size="compact-sm" variant="default" onClick={() => back(strike)}>
              Put back
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}
