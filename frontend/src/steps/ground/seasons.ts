import { TABLES } from "../../api/tables";

export const SEASONS = TABLES.seasons;
export type Season = (typeof SEASONS)[number];

/** The season of a day. */
export const seasonOf = (day: string): Season => TABLES.season_of_month[Number(day.slice(5, 7)) - 1] ?? "winter";

/** The newest record of a season. */
export function lastOf<T extends { season: Season; read_on: string }>(
  records: readonly T[],
  season: Season,
): T | undefined {
  return records
    .filter((record) => record.season === season)
    .reduce<T | undefined>((best, record) => (best && best.read_on >= record.read_on ? best : record), undefined);
}
