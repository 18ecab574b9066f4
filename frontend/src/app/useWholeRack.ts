import { useEffect, useState } from "react";
import { useStanding } from "../session/session";
import { type FittingStore, isAtRest } from "./useFitting";

const AGAIN_MS = 3000;

/**
 * A fitting that is opened or edited is answered at once: with the clubs near the last choice, or without a set where none
 * was worked out before. The whole rack's answer is asked for then, and again for as long as none comes; the next edit puts
 * the question away.
 * Says whether the last try had no answer.
 */
export function useWholeRack({ server, saveState, reload }: Pick<FittingStore, "server" | "saveState" | "reload">) {
  const { ended } = useStanding();
  const { revision, to_come } = server;
  const short = to_come || server.recommendation?.whole_rack === false;
  const [failures, setFailures] = useState(0);
  const open = ended === null;
  const atRest = isAtRest(saveState);
  // biome-ignore lint/correctness/useExhaustiveDependencies: every revision asks for its own
  useEffect(() => {
    if (!short) setFailures(0);
    if (!short || !atRest || !open) return;
    let here = true;
    const question = new AbortController();
    const ask = () => reload(undefined, question.signal).catch(() => here && setFailures((n) => n + 1));
    const timer = setTimeout(ask, failures > 0 ? AGAIN_MS : 0);
    return () => {
      here = false;
      clearTimeout(timer);
      question.abort(); // a browser has six lines to a server: one that waits for an old answer keeps the next edit waiting
    };
  }, [short, to_come, atRest, revision, reload, failures, open]);
  return failures > 0;
}
