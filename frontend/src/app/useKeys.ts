import { useState } from "react";

/**
 * Keys for the entries of a list without ids, so that what is being typed stays with its entry: those before and after
 * what changed keep theirs, and what changed keeps them by its place.
 */
export function keysAfter(
  before: readonly string[],
  keys: readonly number[],
  after: readonly string[],
  free: number,
): number[] {
  const most = Math.min(before.length, after.length);
  let head = 0;
  while (head < most && before[head] === after[head]) head++;
  let tail = 0;
  while (tail < most - head && before[before.length - 1 - tail] === after[after.length - 1 - tail]) tail++;
  const changed = keys.slice(head, keys.length - tail).slice(0, after.length - head - tail);
  const fresh = Array.from({ length: after.length - head - tail - changed.length }, (_, n) => free + n);
  return [...keys.slice(0, head), ...changed, ...fresh, ...keys.slice(keys.length - tail)];
}

/** `keysAfter` from one drawing of the list to the next. */
export function useKeys(list: readonly object[]): number[] {
  const told = list.map((one) => JSON.stringify(one));
  const [seen, setSeen] = useState({ told, keys: told.map((_, n) => n), free: told.length });
  if (told.length === seen.told.length && told.every((one, n) => one === seen.told[n])) return seen.keys;
  const keys = keysAfter(seen.told, seen.keys, told, seen.free);
  setSeen({ told, keys, free: seen.free + told.length });
  return keys;
}
