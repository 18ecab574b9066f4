import { tab } from "../offline/texts";
import { type Change, same } from "./changes";

/**
 * What a person did at one go, and can take back: fields changed together, or a strike taken or taken out. Edits of several
 * sections in one act bear its name, and are taken back together.
 */
export type Deed =
  | { kind: "edit"; section: string; changes: Change[]; act?: string }
  | { kind: "strike"; id: string; out: boolean };

/** Whether two deeds are of one act. */
export const together = (one: Deed, other: Deed | undefined) =>
  one.kind === "edit" && other?.kind === "edit" && one.act !== undefined && one.act === other.act;

export interface History {
  past: Deed[];
  future: Deed[];
}

const DEPTH = 60;
const PAUSE_MS = 2500;
export const NOTHING: History = { past: [], future: [] };

/** When the last letter was typed, and whether the field was left since. */
export interface Typing {
  at: number;
  left: boolean;
}

const fields = (deed: Deed) => (deed.kind === "edit" ? deed.changes.map((c) => [deed.section, ...c.path]) : deed);

/** The history with one more deed; letters typed one after another into the same field are one. */
export function withDeed(history: History, deed: Deed, typing: Typing, now: number): History {
  const last = history.past.at(-1);
  const goesOn =
    last?.kind === "edit" &&
    deed.kind === "edit" &&
    !typing.left &&
    now - typing.at < PAUSE_MS &&
    same(fields(last), fields(deed)) &&
    deed.changes.every((change, i) => same(change.before, last.changes[i]?.after));
  if (!goesOn) return { past: [...history.past, deed].slice(-DEPTH), future: [] };
  const joined = deed.changes.map((change, i) => ({ ...change, before: last.changes[i]?.before }));
  return { past: [...history.past.slice(0, -1), { ...deed, changes: joined }], future: [] };
}

/** What a tab remembers of its deeds on a fitting, so that a reload takes nothing away; it goes when the tab is closed. */
export function keepHistory(key: string, history: History) {
  if (history.past.length + history.future.length > 0) tab.keep(key, JSON.stringify(history));
  else tab.drop(key);
}

export function keptHistory(key: string): History {
  try {
    return { ...NOTHING, ...(JSON.parse(tab.read(key) ?? "{}") as Partial<History>) };
  } catch {
    return NOTHING;
  }
}
