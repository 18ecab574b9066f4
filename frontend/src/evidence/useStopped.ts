import { skipToken, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answerKey } from "../api/answerKey";
import { api, unwrap } from "../api/client";
import { useStore } from "../app/context";

type LongQuestion = "evidence" | "flips" | "schools";

/** Whether the fitter stopped a long question about the fitting as it is. */
export function useIsStopped(name: LongQuestion): boolean {
  const { server } = useStore();
  return useQuery<boolean>({ queryKey: keyOf(name, server), queryFn: skipToken }).data === true;
}

/**
 * A long question about the fitting as it is: how to stop it, or have it asked again. The draws of the laws end with
 * their screen; the others go on for whoever comes back, and are stopped on the server.
 */
export function useStopped(name: LongQuestion) {
  const { server } = useStore();
  const client = useQueryClient();
  const key = keyOf(name, server);
  const stopped = useIsStopped(name);
  const stop = useMutation({
    mutationFn: async () => {
      client.setQueryData(key, true);
      await client.cancelQueries({ queryKey: [name, server.id] });
      const fitting = { params: { path: { fitting_id: server.id } } };
      if (name === "flips") await unwrap(api.DELETE("/api/fittings/{fitting_id}/flips", fitting));
      if (name === "schools") await unwrap(api.DELETE("/api/fittings/{fitting_id}/schools", fitting));
      await client.invalidateQueries({ queryKey: ["work"] });
    },
  });
  return {
    stopped,
    stop: () => stop.mutate(),
    again: () => client.setQueryData(key, false),
    problem: stop.error?.message ?? null,
  };
}

const keyOf = (name: LongQuestion, server: Parameters<typeof answerKey>[1]) => answerKey(`${name} stopped`, server);
