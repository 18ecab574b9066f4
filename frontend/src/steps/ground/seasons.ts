export const SEASONS = ["spring", "summer", "autumn", "winter"] as const;
export type Season = (typeof SEASONS)[number];

const dayFormat = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric" });

/** Today as a day, in the fitter's own time zone. */
export function today(): string {
  const now = new Date();
  const two = (value: number) => String(value).padStart(2, "0");
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}

/** The season of a day in the north: December to February is winter. */
export function seasonOf(day: string): Season {
  const month = Number(day.slice(5, 7));
  return month === 12 || month <= 2 ? "winter" : month <= 5 ? "spring" : month <= 8 ? "summer" : "autumn";
}

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
