import { Program } from "./later";
export interface Step {
  key: string;
  name: string;
  hotkey: string;
  page: Program;
}

/** The job, in the order in which it is done. */
export const STEPS: readonly Step[] = [
  { key: "player", name: "Player", hotkey: "1", page: new Program(() => import("../steps/player/PlayerStep")) },
  { key: "ground", name: "Ground", hotkey: "2", page: new Program(() => import("../steps/ground/GroundStep")) },
  { key: "bag", name: "Bag", hotkey: "3", page: new Program(() => import("../steps/bag/BagStep")) },
  { key: "strikes", name: "Strikes", hotkey: "4", page: new Program(() => import("../steps/strikes/StrikesStep")) },
  { key: "carries", name: "Carries", hotkey: "5", page: new Program(() => import("../steps/carries/CarriesStep")) },
  { key: "lofts", name: "Lofts", hotkey: "6", page: new Program(() => import("../steps/lofts/LoftsStep")) },
  { key: "soles", name: "Soles", hotkey: "7", page: new Program(() => import("../steps/soles/SolesStep")) },
  { key: "proof", name: "Proof", hotkey: "8", page: new Program(() => import("../steps/proof/ProofStep")) },
  { key: "build", name: "Build", hotkey: "9", page: new Program(() => import("../steps/build/BuildStep")) },
  { key: "card", name: "Card", hotkey: "0", page: new Program(() => import("../steps/card/CardStep")) },
  { key: "log", name: "Log", hotkey: "-", page: new Program(() => import("../steps/log/LogStep")) },
];

/** Where the fields of a document are changed: the longest beginning of their path counts. */
const CHANGED_AT: Readonly<Record<string, string>> = {
  player: "player", grounds: "ground", bag: "bag", rack: "bag", choices: "lofts", "choices.pinned": "soles",
  measuring: "carries?view=measure", evidence: "proof", build: "build", card: "card", after: "log",
  "after.trips": "log?view=trips",
}; // biome-ignore format: a table in few lines

/** The step at which a field is changed, and the address of its page within a fitting. */
export function stepOf(field: string): { name: string; path: string } | undefined {
  const [start] = Object.keys(CHANGED_AT)
    .filter((part) => field === part || field.startsWith(`${part}.`))
    .sort((a, b) => b.length - a.length);
  const path = start && CHANGED_AT[start];
  const step = path && STEPS.find(({ key }) => key === path.split("?")[0]);
  return path && step ? { name: step.name, path } : undefined;
}

/** Pages of a fitting beside its steps. */
export const OTHERS: readonly Omit<Step, "hotkey">[] = [
  { key: "import", name: "Strikes from a file", page: new Program(() => import("../steps/import/ImportPage")) },
  { key: "kept", name: "Kept proposals", page: new Program(() => import("../steps/kept/KeptPage")) },
];
