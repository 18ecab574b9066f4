import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../api/client";
import { useStore } from "./context";

/** Keep the proposal on the screen as a snapshot. */
export function useKeep() {
  const { server, reload, saveState } = useStore();
  const client = useQueryClient();
  return useMutation({
    mutationKey: ["keep", server.id],
    mutationFn: async () => {
      if (saveState !== "saved") throw new Error("Wait until everything is saved, then keep it.");
      return unwrap(
        api.POST("/api/fittings/{fitting_id}/kept", {
          params: { path: { fitting_id: server.id } },
          body: { revision: server.revision, label: "" },
        }),
      );
    },
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ["kept", server.id] });
      await reload();
    },
  });
}
