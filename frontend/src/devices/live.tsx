import { createContext, type ReactNode, useContext } from "react";
import { useLive } from "./useLive";

const Hearing = createContext(false);
export const HearingProvider = Hearing.Provider;

/** Whether word of strikes and readings comes in at this moment. */
export const useHearing = () => useContext(Hearing);

/** Word from the server for the whole fitting, over the one line that all tabs of the browser share. */
export function LiveProvider({ children }: { children: ReactNode }) {
  return <HearingProvider value={useLive()}>{children}</HearingProvider>;
}
