import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, RequestError, type Schemas, unwrap } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { PlainNumber } from "../parts/PlainNumber";
import parts from "../parts/parts.module.css";
import classes from "./Build.module.css";

type Prices = Schemas["PriceListOut"]["prices"];

/** What the studio takes for its work; it holds for every fitting. */
export function PriceList() {
  const { server } = useStore();
  const client = useQueryClient();
  const [typed, setTyped] = useState<Partial<Prices>>({});
  const list = useQuery({ queryKey: ["prices"], queryFn: () => unwrap(api.GET("/api/prices")) });
  const put = useMutation({
    mutationFn: (prices: Prices) =>
      unwrap(api.PUT("/api/prices", { body: { prices, revision: list.data?.revision ?? 0 } })),
    onSuccess: async (saved) => {
      client.setQueryData(["prices"], saved);
      setTyped({});
      await client.invalidateQueries({ queryKey: ["build", server.id] });
    },
    // somebody else's list is shown before anything is put in its place; what was typed stays
    onError: (error) => {
      if (error instanceof RequestError && error.status === 409) void list.refetch();
    },
  });
  if (!list.data) return null;
  const prices = { ...list.data.prices, ...typed };
  const changed = Object.keys(typed).length > 0;
  return (
    <details className={classes.prices}>
      <summary>Price list of the studio</summary>
      <div className={parts.fields}>
        {TABLES.prices.map(({ key, name, low, high }) => (
          <PlainNumber
            key={key}
            label={name}
            unit=""
            value={prices[key as keyof Prices] ?? low}
            low={low}
            high={high}
            onChange={(value) => setTyped((before) => ({ ...before, [key]: value }))}
          />
        ))}
        <Button size="xs" disabled={!changed || put.isPending} onClick={() => put.mutate(prices)}>
          Save the price list
        </Button>
      </div>
      <p className={classes.note} role="status">
        {put.isError ? put.error.message : changed ? "Not saved yet." : put.isSuccess ? "Saved." : ""}
      </p>
    </details>
  );
}
