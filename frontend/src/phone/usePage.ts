import { useCallback, useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { type Refused, type Score, type Shot, send, waiting } from "./outbox";

export type Opened = Schemas["PageOut"];
export type Page = Opened["page"];

/** What becomes of what is not with the studio yet; `refused`: why it is not taken, in the server's words. */
export type Fate = "sending" | "waits" | { refused: string };

const NO_PAGE = "There is no connection, and this phone has not kept the page yet.";
const AGAIN_MS = 5000;
const LONGEST_MS = 60_000;
/** Longer than this no answer is waited for: the line is gone and nothing says so. */
const LOST_MS = 30_000;

/** The page and what was done on it, sent as soon as there is a connection and tried until it is taken. */
export function usePage(token: string) {
  const [opened, setOpened] = useState<Opened | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [unsent, setUnsent] = useState<Score[]>(() => waiting("scores", token));
  const [shots, setShots] = useState<Shot[]>(() => waiting("shots", token));
  // what the server took stays in its chart until the page that is shown has it
  const [counted, setCounted] = useState<Score[]>(unsent);
  const [fate, setFate] = useState<Fate>("sending");
  const missing = useRef<"page" | "news" | null>("page");
  const busy = useRef(false);
  const asked = useRef(false);
  const tries = useRef(0);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const here = useRef(true);

  /** How much waits, shown as it is. */
  const look = useCallback(() => {
    const [scores, noted] = [waiting("scores", token), waiting("shots", token)];
    setUnsent(scores);
    setShots(noted);
    setCounted((before) => [...before.filter((one) => !scores.some(({ id }) => id === one.id)), ...scores]);
    return scores.length + noted.length;
  }, [token]);

  const read = useCallback(async () => {
    // after something was sent nothing but the server's answer will do
    const how: RequestInit = missing.current === "news" ? { cache: "reload" } : {};
    const reply = await fetch(`/api/page/${token}`, { ...how, signal: AbortSignal.timeout(LOST_MS) });
    const body = await reply.json();
    if (reply.ok) {
      setOpened(body as Opened);
      missing.current = null;
    } else {
      setProblem((body as { message: string }).message);
      if (reply.status < 500 && reply.status !== 429) missing.current = null; // it opens nothing: asking again changes nothing
    }
  }, [token]);

  /** One round of what is open. Whether it is to be tried again. */
  const round = useCallback(async (): Promise<boolean> => {
    try {
      if (missing.current === "page") await read();
      let refused: Refused | null = null;
      let left = look();
      for (let before = Number.POSITIVE_INFINITY; left > 0 && left < before; ) {
        refused = await send(token, AbortSignal.timeout(LOST_MS));
        [before, left] = [left, look()];
        if (refused === null || left < before) missing.current = "news";
      }
      if (refused !== null) setFate({ refused: refused.words });
      if (missing.current !== null) await read();
      return missing.current !== null || refused?.again === true;
    } catch {
      setFate("waits");
      setProblem(NO_PAGE);
      return true;
    }
  }, [token, look, read]);

  const run = useCallback(async () => {
    asked.current = true;
    if (busy.current) return;
    busy.current = true;
    clearTimeout(timer.current);
    let again = false;
    while (asked.current && here.current) {
      asked.current = false; // whoever asks from now on is not answered by this round
      again = await round();
    }
    look();
    busy.current = false;
    tries.current = again ? tries.current + 1 : 0;
    const wait = Math.min(AGAIN_MS * 2 ** (tries.current - 1), LONGEST_MS);
    if (again && here.current) timer.current = setTimeout(run, wait);
  }, [round, look]);

  /** Send what waits, and read what is missing. */
  const deliver = useCallback(() => {
    if (look() > 0) setFate("sending");
    else if (missing.current === null) return;
    tries.current = 0;
    void run();
  }, [look, run]);

  useEffect(() => {
    here.current = true;
    deliver();
    const shown = () => document.visibilityState === "visible" && deliver();
    window.addEventListener("online", deliver);
    document.addEventListener("visibilitychange", shown);
    return () => {
      here.current = false;
      clearTimeout(timer.current);
      window.removeEventListener("online", deliver);
      document.removeEventListener("visibilitychange", shown);
    };
  }, [deliver]);

  const there = new Set(opened?.scores.map(({ id }) => id));
  const scores = [...(opened?.scores ?? []), ...counted.filter(({ id }) => !there.has(id))];
  return { opened, problem, scores, unsent, shots, fate, deliver };
}
