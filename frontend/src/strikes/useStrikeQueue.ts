import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, RequestError, type Strike, unwrap } from "../api/client";
import { useStore } from "../app/context";

type Act =
  | { kind: "take"; strike: Strike }
  | { kind: "aside"; id: string; reason: string | null }
  | { kind: "undo"; id: string };

const RETRY_MS = 3000;
const storageKey = (id: string) => `oblatus-strikes-${id}`;

function keptActs(id: string): Act[] {
  try {
    return JSON.parse(localStorage.getItem(storageKey(id)) ?? "[]") as Act[];
  } catch {
    return [];
  }
}

export interface StrikeQueue {
  /** Acts that the server does not have yet, in their order. */
  waiting: Act[];
  /** What to add to the last answer of the server: acts that wait, and those that arrived since it was given. */
  ahead: Act[];
  offline: boolean;
  failure: string | null;
  take: (strike: Strike) => void;
  setAside: (id: string, reason: string | null) => void;
  undo: (id: string) => void;
}

/**
 * Strikes on their way to the server: kept in this browser until it has them, sent in order, and sent again after a lost
 * connection. An id goes with every strike, so that one sent twice is taken once.
 */
export function useStrikeQueue(): StrikeQueue {
  const store = useStore();
  const client = useQueryClient();
  const id = store.server.id;
  const [acts, setActs] = useState<Act[]>(() => keptActs(id));
  const [landed, setLanded] = useState<Act[]>([]);
  const [offline, setOffline] = useState(false);
  const [failure, setFailure] = useState<string | null>(null);
  const busy = useRef(false);
  const latest = useRef(acts);
  latest.current = acts;

  const put = useCallback(
    (next: Act[]) => {
      latest.current = next;
      if (next.length === 0) localStorage.removeItem(storageKey(id));
      else localStorage.setItem(storageKey(id), JSON.stringify(next));
      setActs(next);
    },
    [id],
  );

  const send = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    const sent: Act[] = [];
    try {
      for (let act = latest.current[0]; act; act = latest.current[0]) {
        try {
          await perform(id, act);
          setOffline(false);
          sent.push(act);
          setLanded((before) => [...before, act]);
        } catch (error) {
          if (!(error instanceof RequestError)) throw error;
          if (error.status === 0 || error.status >= 500 || error.status === 401) {
            setOffline(true);
            return;
          }
          // what was taken back already is not there any more: nothing is lost by going on
          if (error.status !== 404) setFailure(error.message);
        }
        put(latest.current.slice(1));
      }
    } finally {
      busy.current = false;
      if (sent.length > 0) {
        // they stay on the screen as they were typed until an answer of the server holds them
        await Promise.all(["carries", "session"].map((key) => client.invalidateQueries({ queryKey: [key, id] })));
        await store.reload().catch(() => setOffline(true));
        setLanded((before) => before.filter((act) => !sent.includes(act)));
      }
    }
  }, [id, client, store.reload, put]);

  useEffect(() => {
    if (acts.length === 0) return;
    const timer = setTimeout(send, offline ? RETRY_MS : 0);
    return () => clearTimeout(timer);
  }, [acts, offline, send]);

  const add = useCallback(
    (act: Act) => {
      setFailure(null);
      put([...latest.current, act]);
    },
    [put],
  );
  return {
    waiting: acts,
    ahead: [...landed, ...acts],
    offline,
    failure,
    take: useCallback((strike: Strike) => add({ kind: "take", strike }), [add]),
    setAside: useCallback((strike: string, reason: string | null) => add({ kind: "aside", id: strike, reason }), [add]),
    undo: useCallback((strike: string) => add({ kind: "undo", id: strike }), [add]),
  };
}

async function perform(fitting_id: string, act: Act) {
  if (act.kind === "take") {
    const body = { strikes: [act.strike] };
    await unwrap(api.POST("/api/fittings/{fitting_id}/strikes", { params: { path: { fitting_id } }, body }));
    return;
  }
  const path = { fitting_id, strike_id: act.id };
  if (act.kind === "undo")
    await unwrap(api.DELETE("/api/fittings/{fitting_id}/strikes/{strike_id}", { params: { path } }));
  else
    await unwrap(
      api.PATCH("/api/fittings/{fitting_id}/strikes/{strike_id}", {
        params: { path },
        body: { set_aside: act.reason },
      }),
    );
}

/** The strikes as they will be once everything that is ahead of the server's answer is in it. */
export function withAhead(strikes: readonly Strike[], ahead: readonly Act[]): Strike[] {
  const found = new Map(strikes.map((strike) => [strike.id, strike]));
  for (const act of ahead) {
    if (act.kind === "take") found.set(act.strike.id, found.get(act.strike.id) ?? act.strike);
    else if (act.kind === "undo") found.delete(act.id);
    else {
      const strike = found.get(act.id);
      if (strike) found.set(act.id, { ...strike, set_aside: act.reason });
    }
  }
  return [...found.values()];
}
