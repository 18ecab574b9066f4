import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Build, RequestError, type Schemas, unwrap } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { useRemembered } from "../../app/useRemembered";
import { PlainNumber } from "../parts/PlainNumber";
import parts from "../parts/parts.module.css";
import classes from "./Build.module.css";

type Prices = Schemas["PriceListOut"]["prices"];

interface Begun {
  typed: Partial<Prices>;
  counted: Record<string, number>;
  /** Of the list that was shown when typing began: one that comes meanwhile is not written over unseen. */
  since: number | null;
}

const NOTHING: Begun = { typed: {}, counted: {}, since: null };

/** What the studio takes for its work, and which parts are on its shelf; it holds for every fitting. */
export function PriceList({ sheet }: { sheet: Build }) {
  const { server } = useStore();
  const client = useQueryClient();
  const [begun, begin] = useRemembered("prices", NOTHING);
  const { typed, counted, since } = begun;
  const list = useQuery({ queryKey: ["prices"], queryFn: () => unwrap(api.GET("/api/prices")) });
  const put = useMutation({
    mutationFn: ({ prices, counted }: { prices: Prices; typed: Partial<Prices>; counted: Record<string, number> }) =>
      unwrap(
        api.PUT("/api/prices", {
          body: { prices, parts: counted, revision: since ?? list.data?.revision ?? 0 },
        }),
      ),
    onSuccess: async (saved, sent) => {
      // what was typed since is of the list that came back
      begin((now) => {
        const left = { typed: typedSince(now.typed, sent.typed), counted: typedSince(now.counted, sent.counted) };
        const some = Object.values(left).some((one) => Object.keys(one).length > 0);
        return { ...left, since: some ? saved.revision : null };
      });
      client.setQueryData(["prices"], saved);
      await client.invalidateQueries({ queryKey: ["build", server.id] });
    },
    // somebody else's list is shown before anything is put in its place; what was typed stays
    onError: (error) => {
      if (!(error instanceof RequestError && error.status === 409)) return;
      begin((now) => ({ ...now, since: null }));
      void list.refetch();
    },
  });
  const [open] = useState(since !== null);
  if (!list.data) return null;
  const { revision } = list.data;
  const prices = { ...list.data.prices, ...typed };
  const changed = Object.keys(typed).length + Object.keys(counted).length > 0;
  return (
    <details className={classes.prices} open={open}>
      <summary>Prices and parts of the studio</summary>
      <div className={parts.fields}>
        {TABLES.prices.map(({ key, name, low, high }) => (
          <PlainNumber
            key={key}
            label={name}
            unit=""
            value={prices[key as keyof Prices] ?? low}
            low={low}
            high={high}
            onChange={(value) => {
              begin((now) => ({ ...now, typed: { ...now.typed, [key]: value }, since: now.since ?? revision }));
            }}
          />
        ))}
        {[...sheet.shafts, ...sheet.grips].map(({ code, name }) => (
          <PlainNumber
            key={code}
            label={`${name}, on the shelf`}
            unit=""
            value={counted[code] ?? list.data.parts[code] ?? 0}
            low={0}
            high={999}
            onChange={(value) => {
              const counted = Math.round(value);
              begin((now) => ({
                ...now,
                counted: { ...now.counted, [code]: counted },
                since: now.since ?? revision,
              }));
            }}
          />
        ))}
        <Button size="xs" disabled={!changed || put.isPending} onClick={() => put.mutate({ prices, typed, counted })}>
          Save prices and parts
        </Button>
      </div>
      <p className={classes.note} role="status">
        {put.isError ? put.error.message : changed ? "Not saved yet." : put.isSuccess ? "Saved." : ""}
      </p>
    </details>
  );
}

/** What was typed while other figures were on their way. */
const typedSince = <T extends object>(now: T, sent: Partial<T>): T =>
  Object.fromEntries(Object.entries(now).filter(([key, value]) => sent[key as keyof T] !== value)) as T;
