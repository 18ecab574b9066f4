import { useEffect, useEffectEvent, useRef } from "react";
import { useRemembered } from "./useRemembered";

/**
 * The one of a list that is in sight, the first until another is chosen, and how to choose. It stays in sight when other
 * screens add to the list: the next act is of it. One that is chosen before it is in the list comes with it.
 */
export function useInSight<T>(what: string, list: readonly T[], idOf: (one: T) => string) {
  const [at, setAt] = useRemembered<string | null>(what, null);
  const one = list.find((some) => idOf(some) === at) ?? list[0];
  const shown = one && idOf(one);
  const before = useRef<string>(undefined);
  const hold = useEffectEvent((id: string) => setAt(id));
  useEffect(() => {
    // one that is chosen and not here yet is waited for; one that was in sight and is gone was taken out
    if (shown && shown !== at && (at === null || at === before.current)) hold(shown);
    before.current = shown;
  }, [shown, at]);
  return [one, setAt] as const;
}
