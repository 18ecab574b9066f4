import { useQuery } from "@tanstack/react-query";
import { api, unwrap } from "../api/client";

const SOON_MS = 500;
const SELDOM_MS = 5000;

/** How far long work of the studio is; looked at often while somebody waits or there is some. Nothing without an answer. */
export function useWork(waits: boolean) {
  const work = useQuery({
    queryKey: ["work"],
    refetchInterval: ({ state }) => (waits || (state.data && state.data.ahead.total > 0) ? SOON_MS : SELDOM_MS),
    queryFn: () => unwrap(api.GET("/api/engine/work")),
  });
  return { counts: work.isError ? undefined : work.data, look: work.refetch }; // how far it was is not how far it is
}
