import catalogue from "./catalogue.json";
import type { Schemas } from "./client";

/** The tables of the program that the screens are made from; `oblatus export` writes them, a test holds them true. */
export const TABLES = catalogue as Schemas["CatalogueOut"];

export type Figure = Schemas["FigureField"];
export type Surface = Schemas["SurfaceKindOut"];

/** A figure of a table by its key. */
export function figureOf(table: readonly Figure[], key: string): Figure {
  const found = table.find((figure) => figure.key === key);
  if (!found) throw new Error(`no figure ${key}`);
  return found;
}

/** Every figure of a table at its usual value. */
export const usualOf = (table: readonly Figure[]): Record<string, number> =>
  Object.fromEntries(table.flatMap(({ key, usual }) => (usual === null ? [] : [[key, usual]])));

type Named = Schemas["KeyNameOut"];

/** What something is called by its key; the key itself where the table does not have it. */
export const namedIn = (table: readonly Named[], key: string) => table.find((one) => one.key === key)?.name ?? key;

/** A table of keys and names as the options of a choice. */
export const optionsOf = (table: readonly Named[]) => table.map(({ key, name }) => ({ value: key, label: name }));

/** The class of a reading. */
export function classOf(surface: Surface, reading: number): string {
  const found = surface.classes.find(
    ({ upto, with_end }) => upto === null || reading < upto || (with_end && reading === upto),
  );
  return found?.key ?? "";
}

/** A kind of ground by its key. */
export function surfaceOf(key: string): Surface {
  const found = TABLES.grounds.find((surface) => surface.key === key);
  if (!found) throw new Error(`no ground ${key}`);
  return found;
}

/** A question with its answers, for a choice between them. */
export function questionOf<Answer extends string>(key: string) {
  const found = TABLES.questions.find((question) => question.key === key);
  if (!found) throw new Error(`no question ${key}`);
  return { label: found.name, options: found.choices.map((choice) => [choice.key as Answer, choice.name] as const) };
}
