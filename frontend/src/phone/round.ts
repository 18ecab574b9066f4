import { v4 as newId } from "uuid";
import { local } from "../offline/texts";
import { today } from "../units/days";
import type { Shot } from "./outbox";

/** The round that is being noted: its shots that stand, kept in this phone so that the last one can be taken back. */
export interface Round {
  id: string;
  on: string;
  shots: Shot[];
}

const nameOf = (token: string) => `oblatus-round-${token}`;

/** The round of today, or a new one: yesterday's is over. */
export function readRound(token: string): Round {
  try {
    const kept = JSON.parse(local.read(nameOf(token)) ?? "null") as Round | null;
    if (kept?.on === today()) return kept;
  } catch {
    // what cannot be read begins a new round
  }
  return { id: newId(), on: today(), shots: [] };
}

/** Keep the round; where there is no room for it, the shots themselves are in the outbox. */
export const writeRound = (token: string, round: Round) => local.keep(nameOf(token), JSON.stringify(round));
