import { v4 as newId } from "uuid";
import { type Shot, today } from "./outbox";

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
    const kept = JSON.parse(localStorage.getItem(nameOf(token)) ?? "null") as Round | null;
    if (kept?.on === today()) return kept;
  } catch {
    // a phone that keeps nothing begins a new round
  }
  return { id: newId(), on: today(), shots: [] };
}

export function writeRound(token: string, round: Round) {
  try {
    localStorage.setItem(nameOf(token), JSON.stringify(round));
  } catch {
    // the shots themselves are in the outbox
  }
}
