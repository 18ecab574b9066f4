import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { api, unwrap } from "../api/client";
import { useStore } from "./context";

const PATIENCE_MS = 8000;
const LOOK_MS = 40;

/** Waits until every edit is on the server, and gives what it holds then; raises if it does not come to that. */
export function useSaved() {
  const store = useStore();
  const now = useRef(store);
  now.current = store;
  return async () => {
    const since = Date.now();
    while (["waiting", "saving"].includes(now.current.saveState) && Date.now() - since < PATIENCE_MS)
      await new Promise((done) => setTimeout(done, LOOK_MS));
    if (now.current.saveState !== "saved") throw new Error("Wait until everything is saved, then try again.");
    return now.current.server;
  };
}

/** Keep the proposal on the screen as a snapshot; an edit that is still on its way is waited for. */
export function useKeep() {
  const { server, reload } = useStore();
  const saved = useSaved();
  const client = useQueryClient();
  const id = server.id;
  return useMutation({
    mutationKey: ["keep", id],
    mutationFn: async () => {
      const { revision } = await saved();
      return unwrap(
        api.POST("/api/fittings/{fitting_id}/kept", {
          params: { path: { fitting_id: id } },
          body: { revision, label: "" },
        }),
      );
    },
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ["kept", id] });
      await reload();
    },
  });
}
