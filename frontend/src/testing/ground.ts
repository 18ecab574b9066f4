import { TABLES, usualOf } from "../api/tables";

/** A ground of usual figures. */
export const ground = (name: string, share: number, source = "measured") => {
  const kinds = TABLES.grounds.map((kind) => [
    kind.key,
    {
      ...usualOf(kind.figures),
      [kind.source]: source,
      [kind.readings]: [],
      ...(kind.picked && { [kind.picked.field]: Object.keys(kind.picked.values)[0] }),
    },
  ]);
  const place = { ...usualOf(TABLES.place), green: TABLES.greens[0], venue: null, season: null, read_on: null };
  return { name, share, ...place, ...Object.fromEntries(kinds) };
};
