import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { api, type Fitting, unwrap } from "../api/client";
import { useStore } from "./context";
import { useRemembered } from "./useRemembered";
import { sendIds } from "./useSendId";

const SAVING_MS = 8000;
const WHOLE_RACK_MS = 60_000;
const LOOK_MS = 40;
/** The key and the button of the set bench send one and the same. */
const sending = sendIds();
/** Under which name the kept proposal in sight is remembered. */
export const KEPT = "kept";

/**
 * Acts on the fitting as the server holds it: waits until every edit is there, with `whole` also until the whole rack has
 * answered, and raises if it does not come to that. An edit made meanwhile goes out after it.
 */
export function useOnSaved(whole = false) {
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
  return async <T>(act: (fitting: Fitting) => Promise<T>): Promise<T> => {
    const since = performance.now();
    while (performance.now() - since < (missing()?.patience ?? 0))
      await new Promise((done) => setTimeout(done, LOOK_MS));
    const still = missing();
    if (still) throw new Error(`Wait until ${still.words}, then try again.`);
    const answer = act(now.current.server);
    now.current.goAfter(answer);
    return answer;
  };
}

/** Keep the proposal on the screen as a snapshot; an edit that is still on its way, and the whole rack, are waited for. */
export function useKeep() {
  const { server, refresh } = useStore();
  const onSaved = useOnSaved(true);
  const client = useQueryClient();
  const [, setInSight] = useRemembered<string | null>(KEPT, null);
  const id = server.id;
  return useMutation({
    mutationKey: ["keep", id],
    mutationFn: () =>
      onSaved(({ revision, strikes_key, rack_key }) =>
        unwrap(
          api.POST("/api/fittings/{fitting_id}/kept", {
            params: { path: { fitting_id: id } },
            body: { revision, rack_key, id: sending.of({ id, revision, strikes_key, rack_key }), label: "" },
          }),
        ),
      ),
    onSuccess: async (line) => {
      sending.arrived();
      setInSight(line.id);
      await client.invalidateQueries({ queryKey: ["kept", id] });
      refresh();
    },
  });
}
