import { createContext, type Dispatch, type SetStateAction, useContext, useState, useSyncExternalStore } from "react";
import { same } from "../history/changes";
import { tab } from "../offline/texts";

const PREFIX = "oblatus-typed-";
const of = (fitter: string) => `${PREFIX}${fitter}-`;

/** Under which names this tab remembers what a fitter types and chooses on a page. */
export const rememberedOf = (fitter: string, page: string) => `${of(fitter)}${page}-`;

const Where = createContext("");
/** Names for all that is remembered in it; outside of one nothing is. */
export const RememberedUnder = Where.Provider;

/** Names for what is remembered of one thing of the page, which may come to stand in another place of its list. */
export function useRememberedOf(thing: string) {
  const where = useContext(Where);
  return where && `${where}${thing} `;
}

/** What was read or written of this tab; nothing under a name that has nothing. */
const known = new Map<string, unknown>();
const listeners = new Set<() => void>();

function subscribe(listener: () => void) {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

function heldUnder(name: string): unknown {
  if (!known.has(name)) known.set(name, parsed(tab.read(name)));
  return known.get(name);
}

function put(name: string, value: unknown) {
  known.set(name, value);
  if (value === undefined) tab.drop(name);
  else tab.keep(name, JSON.stringify(value));
  for (const listener of listeners) listener();
}

/** Forget what this tab remembers of a fitter. */
export function forgetRemembered(fitter: string) {
  for (const name of [...tab.names(of(fitter)), ...known.keys()]) if (name.startsWith(of(fitter))) put(name, undefined);
}

/**
 * What is typed and not sent yet, or chosen of a page: it is there again after another step, and after the page was loaded
 * anew. It goes once it is as it was at first, with the tab, and when the fitter signs out. Also what is put after the
 * part was left holds.
 */
export function useRemembered<T>(what: string, first: T): readonly [T, Dispatch<SetStateAction<T>>] {
  const where = useContext(Where);
  const name = where && where + what;
  const [own, setOwn] = useState(first);
  const held = useSyncExternalStore(subscribe, () => (name === "" ? undefined : heldUnder(name)));
  if (name === "") return [own, setOwn];
  const fitting = (found: unknown) =>
    found !== undefined && (first === null || kindOf(found) === kindOf(first)) ? (found as T) : first;
  return [
    fitting(held),
    (next) => {
      const value = typeof next === "function" ? (next as (before: T) => T)(fitting(heldUnder(name))) : next;
      put(name, same(value, first) ? undefined : value);
    },
  ];
}

function parsed(text: string | null): unknown {
  try {
    return text === null ? undefined : JSON.parse(text);
  } catch {
    return undefined;
  }
}

const kindOf = (value: unknown) => (Array.isArray(value) ? "list" : value === null ? "nothing" : typeof value);
