import { createContext, type ReactNode, useContext } from "react";
import { type StrikeQueue, useStrikeQueue } from "./useStrikeQueue";

const Queue = createContext<StrikeQueue | null>(null);

/** The one queue of a fitting: it sends on whatever step is open. */
export function StrikeQueueProvider({ children }: { children: ReactNode }) {
  return <Queue.Provider value={useStrikeQueue()}>{children}</Queue.Provider>;
}

export function useQueue(): StrikeQueue {
  const found = useContext(Queue);
  if (!found) throw new Error("useQueue is for parts of a fitting");
  return found;
}
