import { useEffect, useRef, useState } from "react";
import { api, lost, RequestError, type Schemas, unwrap } from "../api/client";

export type DeskIn = Schemas["DeskIn"];
export type DeskOut = Schemas["DeskOut"];
export type DeskHead = Schemas["DeskHeadOut"];

const AGAIN_MS = 3000;

/**
 * Ask the engine whenever the question changes: one request at a time, the newest question next, stale answers dropped,
 * and the last answer stays on the screen until the next one is there. One that got no answer is asked again.
 */
export function useDesk(question: DeskIn | null): { answer: DeskOut | null; failure: string | null } {
  const [answer, setAnswer] = useState<DeskOut | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const waiting = useRef<DeskIn | null>(null);
  const busy = useRef(false);
  const alive = useRef(true);
  const again = useRef<ReturnType<typeof setTimeout>>(undefined);
  const key = question ? JSON.stringify(question) : null;

  useEffect(() => {
    alive.current = true;
    return () => {
      alive.current = false;
    };
  }, []);

  useEffect(() => {
    if (key === null) return;
    waiting.current = JSON.parse(key) as DeskIn;
    const ask = async () => {
      if (busy.current) return;
      busy.current = true;
      while (waiting.current && alive.current) {
        const body = waiting.current;
        waiting.current = null;
        clearTimeout(again.current);
        try {
          const reply = await unwrap(api.POST("/api/desk", { body, signal: lost() }));
          if (alive.current && waiting.current === null) {
            setAnswer(reply);
            setFailure(null);
          }
        } catch (error) {
          if (!alive.current || waiting.current !== null) continue;
          setFailure(error instanceof Error ? error.message : "The engine does not answer.");
          if (error instanceof RequestError && error.refused) continue;
          again.current = setTimeout(() => {
            waiting.current ??= body;
            void ask();
          }, AGAIN_MS);
        }
      }
      busy.current = false;
    };
    void ask();
    return () => clearTimeout(again.current);
  }, [key]);

  return { answer, failure };
}
