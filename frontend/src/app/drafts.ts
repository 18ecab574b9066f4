import type { Edited, FittingDocument } from "../api/client";
import { TABLES } from "../api/tables";
import { changesOf, same, valueAt, withValue } from "../history/changes";
import { deedsOf } from "../offline/deeds";
import { openTabs, tabName } from "../offline/tab";
import { local, tab } from "../offline/texts";

export type Section = Exclude<keyof FittingDocument, "format" | "version" | "rack" | "strikes" | "attached">;
export const SECTIONS = TABLES.sections as readonly Section[];
export type Sections = Pick<FittingDocument, Section>;

/** A save that was sent and got no answer: it may have arrived. */
export interface Attempt {
  edit_id: string;
  sections: Partial<Sections>;
}

/** Edits that the server does not have: what they were made on, and what they are. */
export interface Draft {
  revision: number;
  base: Partial<Sections>;
  mine: Partial<Sections>;
  attempts: Attempt[];
  /** The wedges by whose places its pins and its build sheet go. */
  wedges?: Wedges;
}

export type Wedges = Sections["bag"]["wedges"];
/** Whether clubs go by their codes in a section. */
export const hasCodes = (section: string) => TABLES.sections_with_codes.includes(section);

const PREFIX = "oblatus-draft-";
const key = (fitter: string, fitting: string, of: string) => `${PREFIX}${fitter}-${fitting}-${of}`;
export const NO_DRAFT: Draft = { revision: 0, base: {}, mine: {}, attempts: [] };

export const isEmpty = (draft: Draft) => Object.keys(draft.mine).length === 0;

/** Keep this tab's draft in the browser, or forget it once it is empty. Returns whether nothing of it is here alone. */
export function keepDraft(fitter: string, fitting: string, draft: Draft): boolean {
  const name = key(fitter, fitting, tabName());
  if (!isEmpty(draft)) return local.keep(name, JSON.stringify(draft));
  local.drop(name);
  return true;
}

/** This tab's draft from before it was loaded again. */
export const keptDraft = (fitter: string, fitting: string): Draft => read(key(fitter, fitting, tabName())) ?? NO_DRAFT;

/** A draft that a closed tab left behind, taken over by this one; null if there is none. */
export async function leftDraft(fitter: string, fitting: string): Promise<Draft | null> {
  const open = await openTabs();
  const prefix = key(fitter, fitting, "");
  for (const name of local.names(prefix)) {
    const other = name.slice(prefix.length);
    if (other === tabName() || open?.includes(other)) continue;
    const draft = read(name);
    local.drop(name);
    if (draft && !isEmpty(draft)) return draft;
  }
  return null;
}

/** Ids of the fittings of which this browser holds drafts of a fitter. */
export function draftedFittings(fitter: string): string[] {
  const prefix = `${PREFIX}${fitter}-`;
  return [...new Set(local.names(prefix).map((name) => name.slice(prefix.length, prefix.length + ID_LENGTH)))];
}

/** Forget every draft of a fitter, and what they did in this tab. */
export function forgetDrafts(fitter: string) {
  for (const name of local.names(`${PREFIX}${fitter}-`)) local.drop(name);
  for (const name of tab.names(deedsOf(fitter))) tab.drop(name);
}

const ID_LENGTH = 36;

function read(name: string): Draft | null {
  try {
    const found = JSON.parse(local.read(name) ?? "null") as Partial<Draft> | null;
    return found?.mine && found.base ? { ...NO_DRAFT, ...found } : null;
  } catch {
    return null;
  }
}

/** The section that a dotted path lies in. */
export const sectionOf = (path: string): Section | undefined =>
  SECTIONS.find((section) => path === section || path.startsWith(`${section}.`));

/**
 * What is left of a draft once the server answered what was sent: edits made meanwhile, and what it did not take, which
 * goes into `held` so that it is not sent again as it is.
 */
export function afterSave(now: Draft, reply: Edited, sent: Partial<Sections>, held: Partial<Sections>): Draft {
  const wrong = new Set([
    ...reply.refused.map((fault) => sectionOf(fault.field)),
    ...reply.conflicts.map((conflict) => sectionOf(conflict.path)),
  ]);
  const base = { ...now.base };
  const mine = { ...now.mine };
  for (const section of Object.keys(sent) as Section[]) {
    const unchanged = now.mine[section] === sent[section];
    if (wrong.has(section) || wrong.has(undefined)) {
      const left = reply.draft[section];
      if (!unchanged) {
        Object.assign(base, { [section]: takenOf(now.base[section], sent[section], reply.document[section]) });
        continue;
      }
      if (left === undefined) continue;
      Object.assign(mine, { [section]: left });
      Object.assign(held, { [section]: left });
      // an unsettled conflict is one again until it is chosen; a refused field stands against what is saved
      if (!reply.conflicts.some((conflict) => sectionOf(conflict.path) === section))
        Object.assign(base, { [section]: reply.document[section] });
    } else if (unchanged) {
      delete mine[section];
      delete base[section];
    } else Object.assign(base, { [section]: sent[section] });
  }
  const left: Draft = { revision: reply.revision, base, mine, attempts: [] };
  const coded = (Object.keys(mine) as Section[]).filter(hasCodes);
  if (coded.length === 0) return left;
  const answered = coded.every((section) => mine[section] === reply.draft[section]);
  return { ...left, wedges: answered ? reply.document.bag.wedges : now.wedges };
}

/** What an edit stood on, with the fields of it that the server took: on that the next one stands. */
function takenOf<T>(before: T, sent: T, saved: T): T {
  const taken = changesOf(before, sent).filter(({ path, after }) => same(valueAt(saved, path), after));
  return taken.reduce((base, { path, after }) => withValue(base, path, after), before);
}
