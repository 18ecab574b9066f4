import { type ComponentType, type LazyExoticComponent, lazy } from "react";

export interface Step {
  key: string;
  name: string;
  hotkey: string;
  page: LazyExoticComponent<ComponentType>;
}

/** The job, in the order in which it is done. */
export const STEPS: readonly Step[] = [
  { key: "player", name: "Player", hotkey: "1", page: lazy(() => import("../steps/player/PlayerStep")) },
  { key: "ground", name: "Ground", hotkey: "2", page: lazy(() => import("../steps/ground/GroundStep")) },
  { key: "bag", name: "Bag", hotkey: "3", page: lazy(() => import("../steps/bag/BagStep")) },
  { key: "strikes", name: "Strikes", hotkey: "4", page: lazy(() => import("../steps/strikes/StrikesStep")) },
  { key: "carries", name: "Carries", hotkey: "5", page: lazy(() => import("../steps/carries/CarriesStep")) },
  { key: "lofts", name: "Lofts", hotkey: "6", page: lazy(() => import("../steps/lofts/LoftsStep")) },
  { key: "soles", name: "Soles", hotkey: "7", page: lazy(() => import("../steps/soles/SolesStep")) },
  { key: "proof", name: "Proof", hotkey: "8", page: lazy(() => import("../steps/proof/ProofStep")) },
  { key: "build", name: "Build", hotkey: "9", page: lazy(() => import("../steps/build/BuildStep")) },
  { key: "card", name: "Card", hotkey: "0", page: lazy(() => import("../steps/card/CardStep")) },
  { key: "log", name: "Log", hotkey: "-", page: lazy(() => import("../steps/log/LogStep")) },
];

/** Pages of a fitting beside its steps. */
export const OTHERS: readonly Omit<Step, "hotkey">[] = [
  { key: "import", name: "Strikes from a file", page: lazy(() => import("../steps/import/ImportPage")) },
  { key: "kept", name: "Kept proposals", page: lazy(() => import("../steps/kept/KeptPage")) },
];
