import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Strike, unwrap } from "../api/client";
import { useStore } from "../app/context";
import { OutList } from "../steps/parts/OutList";
import { useQueue } from "./queue";

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
  return (
    <OutList
      title="Strikes taken out"
      none="None. A strike that is taken out can be put back here for thirty days."
      lines={list.data?.strikes.map((strike) => ({ key: strike.id, words: told(strike) }))}
      failure={list.error}
      onOpen={setOpen}
      onBack={({ key: id }) => {
        did({ kind: "strike", id, out: false });
        queue.putBack(id);
      }}
    />
  );
}
