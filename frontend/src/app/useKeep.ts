import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { api, unwrap } from "../api/client";
import { useStore } from "./context";
import { sendIds } from "./useSendId";

const SAVING_MS = 8000;
const WHOLE_RACK_MS = 60_000;
const LOOK_MS = 40;
/** The key and the button of the set bench send one and the same. */
const sending = sendIds();

/**
 * Waits until every edit is on the server, with `whole` also until the whole rack has answered, and gives what the server
 * holds then; raises if it does not come to that.
 */
export function useSaved(whole = false) {
  const store = useStore();
  const now = useRef(store);
  now.current = store;
  const missing = () => {
    const { saveState, server } = now.current;
    if (saveState !== "saved") {
      const soon = ["waiting", "saving"].includes(saveState);
      return { patience: soon ? SAVING_MS : 0, words: "everything is saved" };
    }
    const short = server.to_come || server.recommendation?.whole_rack === false;
    return whole && short ? { patience: WHOLE_RACK_MS, words: "the whole rack is worked out" } : null;
  };
  return async () => {
    const since = Date.now();
    while (Date.now() - since < (missing()?.patience ?? 0)) await new Promise((done) => setTimeout(done, LOOK_MS));
    const still = missing();
    if (still) throw new Error(`Wait until ${still.words}, then try again.`);
    return now.current.server;
  };
}

/** Keep the proposal on the screen as a snapshot; an edit that is still on its way, and the whole rack, are waited for. */
export function useKeep() {
  const { server, refresh } = useStore();
  const saved = useSaved(true);
  const client = useQueryClient();
  const id = server.id;
  return useMutation({
    mutationKey: ["keep", id],
    mutationFn: async () => {
      const { revision, strikes_key, rack_key } = await saved();
      return unwrap(
        api.POST("/api/fittings/{fitting_id}/kept", {
          params: { path: { fitting_id: id } },
          body: { revision, rack_key, id: sending.of({ id, revision, strikes_key, rack_key }), label: "" },
        }),
      );
    },
    onSuccess: async () => {
      sending.arrived();
      await client.invalidateQueries({ queryKey: ["kept", id] });
      refresh();
    },
  });
}
