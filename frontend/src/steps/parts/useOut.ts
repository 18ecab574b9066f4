import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../../api/client";
import { useStore } from "../../app/context";
import type { OutLine } from "./OutList";

/** The key under which is kept what was taken out of a fitting: to be read again after one more was, or came back. */
export const outKey = (fitting: string) => ["out", fitting];

/** What was taken out of this fitting, as lines of one kind; it is asked for once the list is opened. */
export function useOut<Line extends OutLine>(lines: (out: Schemas["OutList"]) => Line[]) {
  const { server } = useStore();
  const [open, setOpen] = useState(false);
  const found = useQuery({
    queryKey: outKey(server.id),
    enabled: open,
    queryFn: () => unwrap(api.GET("/api/fittings/{fitting_id}/out", { params: { path: { fitting_id: server.id } } })),
    select: lines,
  });
  return { lines: found.data, failure: found.error, onOpen: setOpen };
}
