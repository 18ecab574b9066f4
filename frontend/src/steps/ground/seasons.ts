import { TABLES } from "../../api/tables";

export const SEASONS = TABLES.seasons;
export type Season = (typeof SEASONS)[number];

const dayFormat = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric" });

/** The season of a day. */
export const seasonOf = (day: string): Season => TABLES.season_of_month[Number(day.slice(5, 7)) - 1] ?? "winter";

/** A day as a fitter writes it. */
export const shownDate = (day: string) => dayFormat.format(new Date(`${day}T12:00:00`));

/** The newest record of a season. */
export function lastOf<T extends { season: Season; read_on: string }>(
  records: readonly T[],
  season: Season,
): T | undefined {
  return records
    .filter((record) => record.season === season)
    .reduce<T | undefined>((best, record) => (best && best.read_on >= record.read_on ? best : record), undefined);
}
