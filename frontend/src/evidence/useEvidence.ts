import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, unwrap } from "../api/client";
import { useStore } from "../app/context";

/** The nearest changes that flip the choice; slower, asked for where they are shown. */
export function useFlips() {
  const { server, saveState } = useStore();
  return useQuery({
    queryKey: ["flips", server.id, server.revision, server.strikes_key],
    enabled: saveState === "saved" && server.recommendation !== null,
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/fittings/{fitting_id}/flips", { params: { path: { fitting_id: server.id } }, signal })),
  });
}

/** How often each club stays the choice; asked again, a moment after the last edit, for every revision. */
export function useEvidence() {
  const { server, saveState } = useStore();
  return useQuery({
    queryKey: ["evidence", server.id, server.revision, server.strikes_key],
    enabled: saveState === "saved" && server.recommendation !== null,
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) => {
      await new Promise((done) => setTimeout(done, 600));
      if (signal.aborted) throw new Error("superseded");
      return unwrap(
        api.GET("/api/fittings/{fitting_id}/evidence", { params: { path: { fitting_id: server.id } }, signal }),
      );
    },
  });
}
