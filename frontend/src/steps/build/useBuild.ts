import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { v4 as newId } from "uuid";
import { answerKey } from "../../api/answerKey";
import { api, type Build, unwrap } from "../../api/client";
import { useStore } from "../../app/context";
import { useOnSaved } from "../../app/useKeep";
import type { Act } from "../../strikes/actStore";

type Order = NonNullable<Build["order"]>;
export type Tick = Pick<Order["ticks"][number], "club" | "operation"> & Partial<Order["ticks"][number]>;

/** The build sheet of this fitting with its orders. */
export function useBuild() {
  const { server } = useStore();
  return useQuery({
    queryKey: answerKey("build", server),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/fittings/{fitting_id}/build", { params: { path: { fitting_id: server.id } }, signal })),
  });
}

/** The ticks of an order as they will be once everything that is ahead of the server's answer is in it. */
export function ticksAhead(order: Order, ahead: readonly Act[]): Tick[] {
  const found = new Map<string, Tick>(order.ticks.map((tick) => [`${tick.club}.${tick.operation}`, tick]));
  for (const act of ahead) {
    if (act.kind !== "tick" || act.order !== order.id) continue;
    const place = `${act.club}.${act.operation}`;
    if (!act.done) found.delete(place);
    else if (!found.has(place)) found.set(place, { club: act.club, operation: act.operation });
  }
  return [...found.values()];
}

/** Giving the sheet to the bench, taking changes into its order, cancelling and signing it. */
export function useOrder() {
  const { server, refresh } = useStore();
  const onSaved = useOnSaved();
  const client = useQueryClient();
  const fitting_id = server.id;
  const after = async () => {
    await client.invalidateQueries({ queryKey: ["build", fitting_id] });
    await client.invalidateQueries({ queryKey: ["rack"] });
    refresh();
  };
  // whatever came of it, the screen shows what is so now
  const put = { onSettled: after };
  const begin = useMutation({
    mutationFn: (id: string) =>
      onSaved(({ revision, rack_key }) => {
        const body = { id, revision, rack_key };
        return unwrap(api.POST("/api/fittings/{fitting_id}/build/orders", { params: { path: { fitting_id } }, body }));
      }),
    ...put,
  });
  const anew = useMutation({
    mutationFn: (order_id: string) =>
      onSaved(({ revision }) =>
        unwrap(
          api.PUT("/api/fittings/{fitting_id}/build/orders/{order_id}", {
            params: { path: { fitting_id, order_id } },
            body: { revision },
          }),
        ),
      ),
    ...put,
  });
  const cancel = useMutation({
    mutationFn: async (order_id: string) =>
      unwrap(
        api.DELETE("/api/fittings/{fitting_id}/build/orders/{order_id}", {
          params: { path: { fitting_id, order_id } },
        }),
      ),
    ...put,
  });
  const sign = useMutation({
    mutationFn: ({ order_id, reason }: { order_id: string; reason: string }) =>
      onSaved(({ revision }) =>
        unwrap(
          api.POST("/api/fittings/{fitting_id}/build/orders/{order_id}/sign", {
            params: { path: { fitting_id, order_id } },
            body: { revision, reason },
          }),
        ),
      ),
    ...put,
  });
  return { begin: () => begin.mutate(newId()), beginning: begin, anew, cancel, sign };
}
