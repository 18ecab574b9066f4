import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { askAgain } from "../api/askAgain";
import { NO_ANSWER, RequestError, type Strike } from "../api/client";
import { useStore } from "../app/context";
import { alone } from "../offline/tab";
import { useStanding } from "../session/session";
import {
  type Act,
  actWaits,
  dropAct,
  type KeptAct,
  keepAct,
  markAct,
  strikeOf,
  type Telling,
  waitingActs,
} from "./actStore";
import { backoff, type Held, heldAct, next, perform, refusalOf, untilNext } from "./sending";

const RETRY_MS = 3000;

/** Why nothing is sent at the moment. */
export type Pause = "offline" | "signed_out" | "busy";

export interface StrikeQueue {
  /** Acts that the server does not have yet, in their order. */
  waiting: Act[];
  /** What to add to the last answer of the server: acts that wait, and those that arrived since it was given. */
  ahead: Act[];
  /** Acts that the server looked at and does not take, with the reason. */
  refused: KeptAct[];
  pause: Pause | null;
  failure: string | null;
  take: (strike: Strike) => void;
  tell: (id: string, changes: Telling, noteWas?: string) => void;
  setAside: (id: string, reason: string | null) => void;
  undo: (id: string) => void;
  putBack: (id: string) => void;
  /** A ball of a proof, or what more is said of one or of its block. */
  prove: (act: Extract<Act, { proof: string }>) => void;
  /** A piece of work of a build sheet, done or not after all. */
  tick: (act: Omit<Extract<Act, { kind: "tick" }>, "kind" | "id">) => void;
  /** Send a refused act again, as it was or mended. */
  again: (refused: KeptAct, act?: Act) => void;
  /** Let go of a refused act. */
  discard: (refused: KeptAct) => void;
}

/**
 * Strikes on their way to the server: kept in this browser (IndexedDB) until it has them or the fitter lets them go, sent
 * in the order of each strike, and sent again whatever came back. An id goes with every strike, so that one sent twice is
 * taken once. They belong to the fitter who took them.
 */
export function useStrikeQueue(): StrikeQueue {
  const store = useStore();
  const { session, ended, round } = useStanding();
  const fitter = session.fitter_id ?? "";
  const client = useQueryClient();
  const id = store.server.id;
  const [acts, setActs] = useState<Held[]>([]);
  const [landed, setLanded] = useState<Held[]>([]);
  const [refused, setRefused] = useState<KeptAct[]>([]);
  const [pause, setPause] = useState<Pause | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const busy = useRef(false);
  /** Acts that the server has, and that no answer of its holds yet. */
  const arrived = useRef<Held[]>([]);
  const latest = useRef(acts);
  // the clubs that can be chosen are those of the last answer
  const wedges = useRef(store.server.document.bag.wedges);
  wedges.current = store.server.document.bag.wedges;
  const open = useRef(ended === null);
  open.current = ended === null;

  const put = useCallback((next: Held[]) => {
    latest.current = next;
    setActs(next);
  }, []);

  // what an earlier page left behind goes first
  useEffect(() => {
    let here = true;
    const load = async () => {
      const found = await waitingActs(fitter, id);
      const mine = await Promise.all(latest.current.map((held) => held.key));
      const left = found.filter((kept) => !mine.includes(kept.key) && kept.refusal === null);
      if (!here) return;
      setRefused(found.filter((kept) => kept.refusal !== null));
      if (left.length > 0) put([...left.map(heldAct), ...latest.current]);
    };
    load().catch(() => here && setFailure(NO_STORE));
    return () => {
      here = false;
    };
  }, [id, fitter, put]);

  /** Send one act. Returns whether others may go on after it. */
  const sendOne = useCallback(
    async (held: Held, sent: Held[]): Promise<boolean> => {
      const key = await held.key;
      const remove = () => put(latest.current.filter((other) => other !== held));
      try {
        // what another page of this browser sent meanwhile is not sent again: it may have been undone since
        if (key === null || (await actWaits(key).catch(() => true))) await perform(id, held.act);
      } catch (error) {
        if (!(error instanceof RequestError)) throw error;
        if (error.refused && !(error.status === 404 && held.act.kind === "undo")) {
          const refusal = refusalOf(error);
          if (key !== null) await markAct(key, refusal).catch(() => setFailure(NO_STORE));
          setRefused((before) => [...before, { key: key ?? strikeOf(held.act), act: held.act, refusal }]);
          remove();
          return true;
        }
        if (!error.refused) {
          const whole =
            error.status === NO_ANSWER || error.status === 401 || error.status === 429 || error.status >= 500;
          const pause = error.status === NO_ANSWER ? "offline" : error.status === 401 ? "signed_out" : "busy";
          held.tries += 1;
          const wait = Math.max(1000 * (error.after ?? 0), error.status === NO_ANSWER ? RETRY_MS : backoff(held.tries));
          held.after = performance.now() + wait;
          setPause(pause);
          put([...latest.current]);
          return !whole;
        }
      }
      sent.push(held);
      setLanded((before) => [...before, held]);
      setPause(null);
      if (key !== null) await dropAct(key).catch(() => setFailure(NO_STORE));
      remove();
      return true;
    },
    [id, put],
  );

  const send = useCallback(async () => {
    if (busy.current || !open.current) return;
    busy.current = true;
    const sent: Held[] = [];
    try {
      await alone(`oblatus-send-${id}`, async () => {
        for (let held = next(latest.current); held && open.current; held = next(latest.current))
          if (!(await sendOne(held, sent))) return;
      });
    } catch (error) {
      for (const held of latest.current) held.after = Math.max(held.after, performance.now() + RETRY_MS);
      throw error;
    } finally {
      busy.current = false;
      // a clock that rang too early is set again
      if (latest.current.length > 0) put([...latest.current]);
      if (sent.length > 0) {
        // they stay on the screen as they were typed until an answer of the server holds them
        const came = await askAgain(client, ["carries", "session-summary", "proofs", "build"], id);
        arrived.current.push(...sent);
        const read = await store.reload().then(
          () => true,
          () => false,
        );
        const fresh = came && read;
        const shown = fresh ? arrived.current.splice(0) : [];
        setLanded((before) => before.filter((act) => !shown.includes(act)));
      }
    }
  }, [id, client, store.reload, sendOne, put]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a fitter who is signed in again sends at once
  useEffect(() => {
    if (acts.length === 0) return setPause(null);
    if (ended !== null) return setPause("signed_out");
    const timer = setTimeout(send, untilNext(acts));
    const atOnce = () => {
      for (const held of latest.current) held.after = 0;
      void send();
    };
    window.addEventListener("online", atOnce);
    return () => {
      clearTimeout(timer);
      window.removeEventListener("online", atOnce);
    };
  }, [acts, ended, round, send]);

  // signed in again: nothing waits for its turn any longer
  // biome-ignore lint/correctness/useExhaustiveDependencies: once a round
  useEffect(() => {
    for (const held of latest.current) held.after = 0;
    if (latest.current.length > 0) put([...latest.current]);
  }, [round, put]);

  const add = useCallback(
    (act: Act) => {
      setFailure(null);
      // shown at once, sent when it is kept
      const key = keepAct(fitter, id, act).catch(() => {
        setFailure(NO_STORE);
        return null;
      });
      put([...latest.current, { act, key, refusal: null, tries: 0, after: 0 }]);
    },
    [put, id, fitter],
  );
  const { did, onDeed } = store;
  const undo = useCallback(
    (strike: string) => {
      did({ kind: "strike", id: strike, out: true });
      add({ kind: "undo", id: strike });
    },
    [add, did],
  );
  // what is taken back from the history goes the same way as everything else
  useEffect(
    () =>
      onDeed((deed, back) => {
        if (deed.kind === "strike") add({ kind: deed.out === back ? "back" : "undo", id: deed.id });
      }),
    [onDeed, add],
  );
  const forget = (one: KeptAct) => setRefused((before) => before.filter((other) => other.key !== one.key));
  return {
    waiting: acts.map((held) => held.act),
    ahead: [...landed, ...acts].map((held) => held.act),
    refused,
    pause,
    failure,
    take: useCallback(
      (strike: Strike) => {
        did({ kind: "strike", id: strike.id, out: false });
        add({ kind: "take", strike, wedges: wedges.current });
      },
      [add, did],
    ),
    tell: useCallback(
      (strike: string, changes: Telling, noteWas?: string) => add({ kind: "tell", id: strike, changes, noteWas }),
      [add],
    ),
    setAside: useCallback(
      (strike: string, set_aside: string | null) => add({ kind: "tell", id: strike, changes: { set_aside } }),
      [add],
    ),
    undo,
    putBack: useCallback((strike: string) => add({ kind: "back", id: strike }), [add]),
    prove: useCallback((act: Extract<Act, { proof: string }>) => add(act), [add]),
    tick: useCallback(
      (work: Omit<Extract<Act, { kind: "tick" }>, "kind" | "id">) =>
        add({ kind: "tick", id: `${work.order}.${work.club}.${work.operation}`, ...work }),
      [add],
    ),
    again: (one, act) => {
      forget(one);
      const mended = act ?? one.act;
      const key = markAct(one.key, null, mended).then(() => one.key);
      put([...latest.current, { act: mended, key, refusal: null, tries: 0, after: 0 }]);
    },
    discard: (one) => {
      forget(one);
      void dropAct(one.key);
    },
  };
}

const NO_STORE = "This browser keeps nothing: strikes that wait for a connection go when the page closes.";
