import { hashKey } from "@tanstack/react-query";

/** One field that an act changed: where, and from what to what. */
export interface Change {
  path: readonly (string | number)[];
  before: unknown;
  after: unknown;
}

const isTree = (value: unknown): value is Record<string, unknown> => typeof value === "object" && value !== null;

/** Whether two values hold the same, in whichever order their fields come: the server gives them back in its own. */
export const same = (one: unknown, other: unknown) =>
  one === undefined || other === undefined ? one === other : hashKey([one]) === hashKey([other]);

/** The fields in which two values differ; lists of another length differ as a whole. */
export function changesOf(before: unknown, after: unknown, path: Change["path"] = []): Change[] {
  if (same(before, after)) return [];
  const list = Array.isArray(before) && Array.isArray(after) && before.length === after.length;
  const tree = isTree(before) && isTree(after) && !Array.isArray(before) && !Array.isArray(after);
  if (!list && !tree) return [{ path, before, after }];
  const one = before as Record<string, unknown>;
  const other = after as Record<string, unknown>;
  const keys = [...new Set([...Object.keys(one), ...Object.keys(other)])];
  return keys.flatMap((key) => changesOf(one[key], other[key], [...path, list ? Number(key) : key]));
}

/** The value at a path. */
export function valueAt(value: unknown, path: Change["path"]): unknown {
  return path.reduce<unknown>((here, step) => (isTree(here) ? here[step as string] : undefined), value);
}

/** The value with another one at a path; nothing is made where there is nothing. */
export function withValue<T>(value: T, path: Change["path"], next: unknown): T {
  const [step, ...rest] = path;
  if (step === undefined) return next as T;
  if (!isTree(value)) return value;
  const inner = withValue((value as Record<string, unknown>)[step as string], rest, next);
  if (Array.isArray(value)) return value.map((entry, i) => (i === step ? inner : entry)) as T;
  return { ...value, [step]: inner };
}
