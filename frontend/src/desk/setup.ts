import type { Schemas } from "../api/client";
import type { DeskIn } from "./useDesk";

export type TurfHere = Required<Schemas["TurfIn"]>;
export type SandHere = Required<Schemas["SandIn"]>;

/** The setup at the desk without the heads, every field known. */
export type Setup = Required<Omit<DeskIn, "heads" | "twins" | "ground">> & { ground: TurfHere | SandHere };

export const TURF_HERE: TurfHere = {
  kind: "turf",
  firmness_g: 90,
  moisture: 0.5,
  root_density: 1,
  ball_height_mm: 3.5,
};
export const SAND_HERE: SandHere = {
  kind: "sand",
  penetrometer_kg_cm2: 2,
  loose_depth_mm: 80,
  moisture: 0.3,
  plug_depth_mm: 3,
};

export const USUAL_TURF: Setup = {
  ground: TURF_HERE,
  opening_deg: 0,
  lean_deg: 4,
  attack_deg: -5,
  speed_mps: 20,
  release: 1,
  entry_mm: -34,
  attack_spread_deg: 1.5,
  lean_spread_deg: 2,
  entry_spread_mm: 15,
};

export const USUAL_SAND: Setup = {
  ...USUAL_TURF,
  ground: SAND_HERE,
  lean_deg: 0,
  attack_deg: -9,
  opening_deg: 15,
  speed_mps: 22,
  entry_mm: -75,
};

export const OUTCOME_WORDS: Record<string, string> = {
  clean: "Clean",
  heavy: "Heavy",
  thin: "Thin",
  bladed: "Bladed",
  dug: "Dug in",
  "slid-under": "Slid under",
  out: "Out",
  short: "Short",
  "left-in": "Left in",
  long: "Long",
};
