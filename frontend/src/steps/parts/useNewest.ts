import { useCallback, useRef } from "react";

/** One function for as long as a part is shown that does what the newest one does: a part that takes it need not be drawn
 * anew for it. For acts of a hand, which come after the part is drawn. */
export function useNewest<A extends unknown[]>(act: (...args: A) => void): (...args: A) => void {
  const newest = useRef(act);
  newest.current = act;
  return useCallback((...args: A) => newest.current(...args), []);
}
