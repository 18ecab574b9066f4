import type { Kept, Schemas } from "../../api/client";
import { TABLES } from "../../api/tables";
import { Figure } from "../../app/Conflicts";
import { useUnits } from "../../app/context";
import { strokes } from "../../pictures/Verdict/Verdict";
import { metres, plain, showDistance, trimmed } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import classes from "./Kept.module.css";
import { nameOf } from "./nameOf";

type Result = NonNullable<Kept["result"]>;

interface Props {
  first: Kept;
  /** The result of the other one; null if nothing can be proposed. */
  second: Result | null;
  name: string;
  differences: readonly Schemas["DifferenceOut"][] | undefined;
}

/** Two proposals side by side, and what differs in what they were made from, by names and units. */
export function Comparison({ first, second, name, differences }: Props) {
  const units = useUnits();
  const rows = results(first, second, (m) => showDistance(metres(m), units.distance));
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

function results(first: Kept, now: Result | null, distance: (m: number) => string): Row[] {
  const before = first.result;
  const was = before ?? first.earlier;
  const club = (found: { loft_deg: number; bounce_deg: number; name: string } | undefined) =>
    found ? `${trimmed(found.loft_deg)}°, ${trimmed(found.bounce_deg)}° bounce, ${found.name}` : "none";
  const slots = Math.max(was?.clubs.length ?? 0, now?.clubs.length ?? 0);
  const gain = (r: Result | null) => (r ? strokes(r.gain_strokes_round) : "not worked out by this engine");
  const gaps = (r: Result | null) => r?.lofts.gaps.map((g) => distance(g.gap_m)).join(", ") ?? "not shown";
  return [
    ...Array.from({ length: slots }, (_, i): Row => [`Club ${i + 1}`, club(was?.clubs[i]), club(now?.clubs[i])]),
    [`Full gaps in still air at ${plain(TABLES.ladder_air_c)}\u00a0°C, by the model`, gaps(before), gaps(now)],
    ["Saved a round, strokes", gain(before), now ? gain(now) : "none"],
    ["Engine", first.engine_version, now?.engine_version ?? "none"],
  ];
}
