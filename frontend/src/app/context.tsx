import { createContext, useContext } from "react";
import type { Fault, Units } from "../api/client";
import type { FittingStore } from "./useFitting";

/** The fitting of a screen; `unheard` while the whole rack's answer was asked for and did not come. */
export type ShownFitting = FittingStore & { unheard: boolean };

const Store = createContext<ShownFitting | null>(null);
const UnitsContext = createContext<Units>({ distance: "m", speed: "mps" });

export const FittingProvider = Store.Provider;
export const UnitsProvider = UnitsContext.Provider;

/** The fitting of this screen. */
export function useStore(): ShownFitting {
  const store = useContext(Store);
  if (!store) throw new Error("useStore outside a fitting");
  return store;
}

/** The units in which this fitter reads. */
export const useUnits = () => useContext(UnitsContext);

/** The fault at a field, if the server named one. */
export function useFault(path: string): Fault | undefined {
  return useStore().faults.find((fault) => fault.field === path);
}
