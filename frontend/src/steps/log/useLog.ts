import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answerKey } from "../../api/answerKey";
import { api, type Schemas, unwrap } from "../../api/client";
import { useStore, useUnits } from "../../app/context";
import { outKey } from "../parts/useOut";

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
    void client.invalidateQueries({ queryKey: outKey(server.id) });
    refresh();
  };
}

/** A round with its day, out of the log or in it. */
export interface Marked {
  round: string;
  on: string;
  out: boolean;
}

/** Take a round out of the log, or put it back. */
export function useMarkRound(onMarked: (marked: Marked) => void) {
  const { server } = useStore();
  const again = useAgain();
  return useMutation({
    mutationFn: ({ round, out }: Marked) =>
      unwrap(
        api.PATCH("/api/fittings/{fitting_id}/log/rounds/{round_id}", {
          params: { path: { fitting_id: server.id, round_id: round } },
          body: { out },
        }),
      ),
    // of every press: what is told with a press is told of the last one alone
    onSuccess: (_, marked) => {
      onMarked(marked);
      return again();
    },
  });
}

export const CALLS: Record<Schemas["SeenOut"]["call"], string> = {
  "too few": "too few to say",
  "as expected": "as expected",
  worse: "worse than expected",
  better: "better than expected",
  open: "not settled",
};
