import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answerKey } from "../../api/answerKey";
import { api, type Schemas, unwrap } from "../../api/client";
import { useStore, useUnits } from "../../app/context";

export type Log = Schemas["LogOut"];
export type Offer = Schemas["OfferOut"];
export type LogShot = Schemas["LogShotDocument"];

/** What the course log of this fitting says, as the fitting stands. */
export function useLog() {
  const { server } = useStore();
  const units = useUnits();
  return useQuery({
    queryKey: answerKey("log", server, units.distance),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/fittings/{fitting_id}/log", { params: { path: { fitting_id: server.id } }, signal })),
  });
}

/** Ask for the log again, and for the states of the steps. */
export function useAgain() {
  const { server, refresh } = useStore();
  const client = useQueryClient();
  return () => {
    void client.invalidateQueries({ queryKey: ["log", server.id] });
    void client.invalidateQueries({ queryKey: ["timeline", server.id] });
    refresh();
  };
}

/** Take a round out of the log, or put it back. */
export function useMarkRound() {
  const { server } = useStore();
  const again = useAgain();
  return useMutation({
    mutationFn: ({ round, out }: { round: string; out: boolean }) =>
      unwrap(
        api.PATCH("/api/fittings/{fitting_id}/log/rounds/{round_id}", {
          params: { path: { fitting_id: server.id, round_id: round } },
          body: { out },
        }),
      ),
    onSuccess: again,
  });
}

export const CALLS: Record<Schemas["SeenOut"]["call"], string> = {
  "too few": "too few to say",
  "as expected": "as expected",
  worse: "worse than expected",
  better: "better than expected",
  open: "not settled",
};
