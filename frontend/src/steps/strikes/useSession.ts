import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { useStore } from "../../app/context";

/** What the strikes of this fitting say; asked again whenever one arrives, and when a page opens. */
export function useSession() {
  const { server } = useStore();
  return useQuery({
    queryKey: ["session-summary", server.id, server.revision],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/fittings/{fitting_id}/session", { params: { path: { fitting_id: server.id } }, signal })),
  });
}
