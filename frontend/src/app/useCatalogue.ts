import { useQuery } from "@tanstack/react-query";
import { api, unwrap } from "../api/client";

/** The shot catalogue and the readings assumed for classes: fetched once. */
export const useCatalogue = () =>
  useQuery({ queryKey: ["catalogue"], queryFn: () => unwrap(api.GET("/api/catalogue")) });
