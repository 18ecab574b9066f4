import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { askAgain } from "../api/askAgain";
import { api, RequestError, type Strike, unwrap } from "../api/client";
import { useStore } from "../app/context";
import { type Act, actWaits, dropAct, keepAct, type Telling, waitingActs } from "./actStore";

const RETRY_MS = 3000;

/** An act with its place in this browser's store, once it is there; null if the browser keeps nothing. */
interface Held {
  act: Act;
  key: Promise<string | null>;
}

export interface StrikeQueue {
  /** Acts that the server does not have yet, in their order. */
  waiting: Act[];
  /** What to add to the last answer of the server: acts that wait, and those that arrived since it was given. */
  ahead: Act[];
  offline: boolean;
  failure: string | null;
  take: (strike: Strike) => void;
  tell: (id: string, changes: Telling) => void;
  setAside: (id: string, reason: string | null) => void;
  undo: (id: string) => void;
}

/**
 * Strikes on their way to the server: kept in this browser (IndexedDB) until it has them, sent in order, and sent again
 * after a lost connection. An id goes with every strike, so that one sent twice is taken once.
 */
export function useStrikeQueue(): StrikeQueue {
  const store = useStore();
  const client = useQueryClient();
  const id = store.server.id;
  const [acts, setActs] = useState<Held[]>([]);
  const [landed, setLanded] = useState<Held[]>([]);
  const [offline, setOffline] = useState(false);
  const [failure, setFailure] = useState<string | null>(null);
  const busy = useRef(false);
  const latest = useRef(acts);

  const put = useCallback((next: Held[]) => {
    latest.current = next;
    setActs(next);
  }, []);

  // what an earlier page left behind goes first
  useEffect(() => {
    let here = true;
    const load = async () => {
      const found = await waitingActs(id);
      const mine = await Promise.all(latest.current.map((held) => held.key));
      const left = found.filter((kept) => !mine.includes(kept.key));
      if (here && left.length > 0)
        put([...left.map(({ act, key }) => ({ act, key: Promise.resolve(key) })), ...latest.current]);
    };
    load().catch(() => here && setFailure(NO_STORE));
    return () => {
      here = false;
    };
  }, [id, put]);

  const send = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    const sent: Held[] = [];
    try {
      for (let held = latest.current[0]; held; held = latest.current[0]) {
        const key = await held.key;
        try {
          // what another page of this browser sent meanwhile is not sent again: it may have been undone since
          if (key === null || (await actWaits(key))) await perform(id, held.act);
          setOffline(false);
          const arrived = held;
          sent.push(arrived);
          setLanded((before) => [...before, arrived]);
        } catch (error) {
          if (!(error instanceof RequestError)) throw error;
          if (error.status === 0 || error.status >= 500 || error.status === 401) {
            setOffline(true);
            return;
          }
          // what was taken back already is not there any more: nothing is lost by going on
          if (error.status !== 404) setFailure(error.message);
        }
        if (key !== null) await dropAct(key).catch(() => setFailure(NO_STORE));
        put(latest.current.slice(1));
      }
    } finally {
      busy.current = false;
      if (sent.length > 0) {
        // they stay on the screen as they were typed until an answer of the server holds them
        await askAgain(client, ["carries", "session"], id);
        await store.reload().catch(() => setOffline(true));
        setLanded((before) => before.filter((act) => !sent.includes(act)));
      }
    }
  }, [id, client, store.reload, put]);

  useEffect(() => {
    if (acts.length === 0) return;
    const timer = setTimeout(send, offline ? RETRY_MS : 0);
    const atOnce = () => send();
    window.addEventListener("online", atOnce);
    return () => {
      clearTimeout(timer);
      window.removeEventListener("online", atOnce);
    };
  }, [acts, offline, send]);

  const add = useCallback(
    (act: Act) => {
      setFailure(null);
      // shown at once, sent when it is kept
      const key = keepAct(id, act).catch(() => {
        setFailure(NO_STORE);
        return null;
      });
      put([...latest.current, { act, key }]);
    },
    [put, id],
  );
  return {
    waiting: acts.map((held) => held.act),
    ahead: [...landed, ...acts].map((held) => held.act),
    offline,
    failure,
    take: useCallback((strike: Strike) => add({ kind: "take", strike }), [add]),
    tell: useCallback((strike: string, changes: Telling) => add({ kind: "tell", id: strike, changes }), [add]),
    setAside: useCallback(
      (strike: string, set_aside: string | null) => add({ kind: "tell", id: strike, changes: { set_aside } }),
      [add],
    ),
    undo: useCallback((strike: string) => add({ kind: "undo", id: strike }), [add]),
  };
}

const NO_STORE = "This browser keeps nothing: strikes that wait for a connection go when the page closes.";

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
    await unwrap(api.PATCH("/api/fittings/{fitting_id}/strikes/{strike_id}", { params: { path }, body: act.changes }));
}

/** The strikes as they will be once everything that is ahead of the server's answer is in it. */
export function withAhead(strikes: readonly Strike[], ahead: readonly Act[]): Strike[] {
  const found = new Map(strikes.map((strike) => [strike.id, strike]));
  for (const act of ahead) {
    if (act.kind === "take") found.set(act.strike.id, found.get(act.strike.id) ?? act.strike);
    else if (act.kind === "undo") found.delete(act.id);
    else {
      const strike = found.get(act.id);
      if (strike) found.set(act.id, { ...strike, ...act.changes });
    }
  }
  return [...found.values()];
}
