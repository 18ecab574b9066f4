import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { exactly } from "../api/answerKey";
import { api, type Recommendation, type Schemas, unwrap } from "../api/client";
import { quiet } from "../api/quiet";
import { useStore } from "../app/context";
import { isAtRest } from "../app/useFitting";
import { useComing } from "../devices/live";
import { useIsStopped } from "./useStopped";

/** The laws are drawn with the whole machine: not between two edits, but once the fitter looks up. */
const LAWS_AFTER_MS = 2_000;

/**
 * Whether a question is to be asked: the proposal on the screen is the whole rack's, belongs to what is saved (no edit is on its way), and is the
 * last one known of, and the fitter did not stop the question.
 */
function useWanted(name: "evidence" | "flips") {
  const { server, saveState } = useStore();
  const stopped = useIsStopped(name);
  return !useComing() && !stopped && isAtRest(saveState) && server.recommendation?.whole_rack === true;
}

/** The nearest changes that flip the choice; slower, asked for where they are shown. */
export function useFlips() {
  const { server } = useStore();
  return useQuery({
    ...exactly("flips", server),
    enabled: useWanted("flips"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/fittings/{fitting_id}/flips", { params: { path: { fitting_id: server.id } }, signal })),
  });
}

/** How sure, with the draws of the laws; asked again, a moment after the last edit, for every revision. */
export function useEvidence() {
  const { server } = useStore();
  const client = useQueryClient();
  const coming = useComing();
  // what is drawn for the proposal of before would hold up the one that is on its way
  useEffect(() => {
    if (coming) void client.cancelQueries({ queryKey: ["evidence", server.id] });
  }, [coming, client, server.id]);
  return useQuery({
    ...exactly("evidence", server),
    enabled: useWanted("evidence"),
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) => {
      await quiet(LAWS_AFTER_MS, signal);
      return unwrap(
        api.GET("/api/fittings/{fitting_id}/evidence", { params: { path: { fitting_id: server.id } }, signal }),
      );
    },
  });
}

/** The steps with the doubt that is known of them: the laws' draws too once they are made for this very proposal. */
export function useSteps(result: Recommendation): Schemas["StepOut"][] {
  const evidence = useEvidence();
  const drawn = evidence.data && !evidence.isPlaceholderData ? evidence.data.steps : [];
  return result.steps.map((step, i) => {
    const mine = drawn[i];
    if (mine?.heads_bought !== step.heads_bought || drawn.length !== result.steps.length) return step;
    return { ...step, low: mine.low, high: mine.high, better_share: mine.better_share };
  });
}
