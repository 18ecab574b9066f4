import type { FittingDocument } from "../api/client";
import { TABLES } from "../api/tables";
import { usePlace } from "../app/usePlace";

/** The clubs that can be hit: the owned wedges, the pitching wedge and the nine-iron, with their lofts in degrees. */
export function clubsOf({ bag }: Pick<FittingDocument, "bag">) {
  return [
    ...bag.wedges.map((wedge, i) => ({ value: `own:${i}`, label: wedge.name, loft: wedge.loft_deg })),
    { value: "pw", label: "pitching wedge", loft: bag.pitching_wedge_loft_deg },
    { value: "9i", label: "nine-iron", loft: bag.nine_iron_loft_deg },
  ];
}

/** The club that is hit, which stays the same wedge wherever it stands in the bag; none while it is out of the bag. */
export function useClub(document: Pick<FittingDocument, "bag">) {
  const clubs = clubsOf(document);
  const entries = clubs.map(({ label, loft }) => ({ name: label, loft }));
  const { was, ...at } = usePlace("club", entries, Math.min(1, clubs.length - 1));
  return { ...at, clubs, club: at.place === null ? undefined : clubs[at.place], was: was?.name };
}

/** A club by its code, also one that is no longer in the bag. */
export function clubName(document: Pick<FittingDocument, "bag">, code: string): string {
  const former = document.bag.former.find((one) => one.code === code);
  return (
    clubsOf(document).find((club) => club.value === code)?.label ?? (former ? `${former.wedge.name}, as it was` : code)
  );
}

/** Clock swings, the fitter's own swings, and the short stations: key and name. */
export function stationsOf({ measuring }: Pick<FittingDocument, "measuring">): (readonly [string, string])[] {
  const of = (clock: boolean) =>
    TABLES.stations.filter((one) => one.clock === clock).map(({ key, name }) => [key, name] as const);
  return [...of(true), ...measuring.swings.map((swing) => [swing.key, swing.name] as const), ...of(false)];
}

/** What the tables say of a station; nothing of a fitter's own swing. */
export const stationOf = (key: string) => TABLES.stations.find((station) => station.key === key);
