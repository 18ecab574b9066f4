import { createContext, type ReactNode, useContext } from "react";
import { useDevices } from "./useDevices";
import { useLive } from "./useLive";

const Hearing = createContext(false);

/** Whether word of strikes and readings comes in at this moment. */
export const useHearing = () => useContext(Hearing);

/** One line to the server for the whole fitting, held while a device is connected or a step waits for one. */
export function LiveProvider({ waiting, children }: { waiting: boolean; children: ReactNode }) {
  const devices = useDevices();
  const wanted = devices.data?.devices.some((device) => device.wanted) ?? false;
  const hearing = useLive(waiting || wanted);
  return <Hearing.Provider value={hearing}>{children}</Hearing.Provider>;
}
