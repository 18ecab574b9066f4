import type { Schemas } from "../api/client";
import { surfaceOf, TABLES, usualOf } from "../api/tables";
import type { DeskIn } from "./useDesk";

export type TurfHere = Required<Schemas["TurfIn"]>;
export type SandHere = Required<Schemas["SandIn"]>;

/** The setup at the desk without the heads, every field known. */
export type Setup = Required<Omit<DeskIn, "heads" | "twins" | "ground">> & { ground: TurfHere | SandHere };

/** Lies to begin from, by name. */
export const LIES: Record<string, Setup> = Object.fromEntries(
  TABLES.lies.map(({ name, swing, ground }) => [name, { ...swing, ...TABLES.spreads, ground } as Setup]),
);

/** A lie of a proposal with every figure of its ground known. */
export const groundHere = (ground: DeskIn["ground"]): Setup["ground"] =>
  ({ ...usualOf(surfaceOf(ground.kind).figures), ...ground }) as Setup["ground"];

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
