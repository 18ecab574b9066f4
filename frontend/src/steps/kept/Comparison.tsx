import type { Kept, Schemas } from "../../api/client";
import { Figure } from "../../app/Conflicts";
import { useUnits } from "../../app/context";
import { metres, plain, showDistance, trimmed } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import classes from "./Kept.module.css";
import { nameOf } from "./nameOf";

interface Props {
  first: Kept;
  /** The result of the other one; null if nothing can be proposed. */
  second: Kept["result"] | null;
  name: string;
  differences: readonly Schemas["DifferenceOut"][] | undefined;
}

/** Two proposals side by side, and what differs in what they were made from, by names and units. */
export function Comparison({ first, second, name, differences }: Props) {
  const units = useUnits();
  const rows = results(first.result, second, (m) => showDistance(metres(m), units.distance));
  return (
    <>
      <CopyTable caption={`${nameOf(first)} beside ${name === "Now" ? "now" : name}`}>
        <thead>
          <tr>
            <th>What</th>
            <th>Kept</th>
            <th>{name}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([what, before, now]) => (
            <tr key={what} data-on={before !== now}>
              <td>{what}</td>
              <td>{before}</td>
              <td>{now}</td>
            </tr>
          ))}
        </tbody>
      </CopyTable>
      {differences?.length === 0 && <p className={classes.line}>No input differs.</p>}
      {differences && differences.length > 0 && (
        <CopyTable caption={`Inputs that differ: ${differences.length}`}>
          <thead>
            <tr>
              <th>Input</th>
              <th>Kept</th>
              <th>{name}</th>
            </tr>
          </thead>
          <tbody>
            {differences.map((one) => (
              <tr key={one.path}>
                <td>{one.name}</td>
                <td>
                  <Figure value={one.before} unit={one.unit} words={one.before_words} />
                </td>
                <td>
                  {one.path.startsWith("strikes.") ? (
                    one.after_words
                  ) : (
                    <Figure value={one.after} unit={one.unit} words={one.after_words} />
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </CopyTable>
      )}
    </>
  );
}

type Row = [string, string, string];

function results(before: Kept["result"], now: Kept["result"] | null, distance: (m: number) => string): Row[] {
  const club = (result: Kept["result"] | null, slot: number) => {
    const found = result?.clubs[slot];
    return found
      ? `${trimmed(found.loft_deg)}°, ${trimmed(found.bounce_deg)}° bounce, ${found.candidates[0]?.name}`
      : "none";
  };
  const slots = Math.max(before.clubs.length, now?.clubs.length ?? 0);
  const score = (r: Kept["result"] | null) => (r?.sets[0] ? plain(100 * r.sets[0].score, 1) : "none");
  const gaps = (r: Kept["result"] | null) => r?.lofts.gaps.map((g) => distance(g.gap_m)).join(", ") ?? "none";
  return [
    ...Array.from({ length: slots }, (_, i): Row => [`Club ${i + 1}`, club(before, i), club(now, i)]),
    ["Full gaps", gaps(before), gaps(now)],
    ["Set value, of 100", score(before), score(now)],
    ["Engine", before.engine_version, now?.engine_version ?? "none"],
  ];
}
