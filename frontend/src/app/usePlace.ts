import { useEffect, useEffectEvent, useState } from "react";
import { useRemembered } from "./useRemembered";

/** What an entry of a list is known by, beside its place: a wedge by its name and loft. */
export interface Entry {
  name: string;
  loft?: number;
}

/**
 * Where an entry of a list stands in the next: where one like it stands; in its place, edited, where none came or went and
 * its name or its loft is as it was; and else where one of its name stands.
 */
export function placeAfter(before: readonly Entry[], place: number, after: readonly Entry[]): number | null {
  const mine = before[place];
  const like = (one: Entry | undefined) => one !== undefined && one.name === mine?.name && one.loft === mine.loft;
  if (mine === undefined || like(after[place])) return place in after ? place : null;
  const found = after.findIndex((one, n) => like(one) && !(before.length === after.length && like(before[n])));
  if (found >= 0) return found;
  const there = after[place];
  const edited = there?.name === mine.name || there?.loft === mine.loft;
  if (before.length === after.length && edited) return place;
  const named = after.findIndex((one) => one.name === mine.name);
  return named >= 0 ? named : null;
}

/** What the server says of the entries of a list as it has them, by place, for those that are on the screen. */
export function saidOf<T>(shown: readonly Entry[], saved: readonly Entry[], said: readonly T[]): (T | undefined)[] {
  return shown.map((_, n) => {
    const there = placeAfter(shown, n, saved);
    return there === null ? undefined : said[there];
  });
}

/**
 * What is chosen of a list that others change too, by its place: the choice goes with its entry. `place` is null while the
 * entry is not there, and `was` says what it was: it may come back; with `orFirst` the first one is chosen then. `turn`
 * changes with every choice, and with no change of the list. `of` says of what list it is: the tab remembers the choice.
 */
export function usePlace(of: string, list: readonly Entry[], first: number, orFirst = false) {
  const [before, remember] = useRemembered<Entry | null>(`chosen-${of}`, null);
  const [seen, setSeen] = useState(
    before === null ? { list, place: first, turn: 0 } : { list: [before], place: 0, turn: 0 },
  );
  const found = placeAfter(seen.list, seen.place, list);
  const place = found ?? (orFirst && list.length > 0 ? 0 : null);
  if (place !== null && (found === null || told(list) !== told(seen.list)))
    setSeen({ list, place, turn: found === null ? seen.turn + 1 : seen.turn });
  // the one that was chosen, as it is called by now: one that is being added comes with a later list
  const here = place === null ? undefined : list[place];
  const keep = useEffectEvent((_: string) => {
    if (here && (before !== null || seen.turn > 0)) remember(entryOf(here));
  });
  const called = here ? told([here]) : "";
  useEffect(() => keep(called), [called]);
  const choose = (next: number) => setSeen({ list, place: next, turn: seen.turn + 1 });
  return { place, choose, was: seen.list[seen.place], turn: seen.turn };
}

const entryOf = ({ name, loft }: Entry): Entry => (loft === undefined ? { name } : { name, loft });

const told = (list: readonly Entry[]) => JSON.stringify(list.map(({ name, loft }) => [name, loft]));
