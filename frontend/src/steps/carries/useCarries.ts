import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { exactly } from "../../api/answerKey";
import { api, type CarriesAsked, unwrap } from "../../api/client";
import { useStore } from "../../app/context";

export const STILL: CarriesAsked = {
  wind_head_mps: 0,
  wind_cross_mps: 0,
  temperature_c: 20,
  altitude_m: 0,
  green: "medium",
  lie: "dry",
  clubs: "bag",
  distance_m: null,
  pin: "middle",
  pinned: null,
};

/** The carries in the conditions asked for; the last answer stays until the next is there, stale ones are dropped. */
export function useCarries(asked: CarriesAsked, enabled = true) {
  const { server } = useStore();
  return useQuery({
    ...exactly("carries", server, asked),
    enabled,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      unwrap(
        api.POST("/api/fittings/{fitting_id}/carries", {
          params: { path: { fitting_id: server.id } },
          body: asked,
          signal,
        }),
      ),
  });
}
