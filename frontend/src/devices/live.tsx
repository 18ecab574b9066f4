import { createContext, type ReactNode, useContext } from "react";
import { useLive } from "./useLive";

const Hearing = createContext(false);
const Coming = createContext(false);
export const HearingProvider = Hearing.Provider;
export const ComingProvider = Coming.Provider;

/** Whether word of strikes and readings comes in at this moment. */
export const useHearing = () => useContext(Hearing);

/** Whether word came of what the proposal rests on, so that another one is on its way. */
export const useComing = () => useContext(Coming);

/** Word from the server for the whole fitting, over the one line that all tabs of the browser share. */
export function LiveProvider({ children }: { children: ReactNode }) {
  const { hearing, coming } = useLive();
  return (
    <HearingProvider value={hearing}>
      <ComingProvider value={coming}>{children}</ComingProvider>
    </HearingProvider>
  );
}
