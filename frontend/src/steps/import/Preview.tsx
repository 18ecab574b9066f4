import type { Strike } from "../../api/client";
import { useStore } from "../../app/context";
import { clubsOf, stationsOf } from "../../strikes/clubs";
import { plain } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import classes from "./Import.module.css";
import type { Look } from "./mapping";

const FIGURES: readonly (readonly [keyof Strike, string, number])[] = [
  ["carry_m", "carry m", 1],
  ["club_speed_mps", "head m/s", 1],
  ["ball_speed_mps", "ball m/s", 1],
  ["launch_deg", "launch °", 1],
  ["spin_rpm", "spin rpm", 0],
  ["apex_m", "apex m", 1],
  ["landing_deg", "landing °", 1],
  ["attack_deg", "attack °", 1],
  ["lean_deg", "lean °", 1],
  ["entry_mm", "entry mm", 0],
  ["dynamic_loft_deg", "dyn. loft °", 1],
  ["impact_height_mm", "contact mm", 1],
];

/** The first strikes as they will be taken, in the units of the engine; and the first rows that cannot be. */
export function Preview({ look, taken = false }: { look: Look; taken?: boolean }) {
  const { server } = useStore();
  const clubs = Object.fromEntries(clubsOf(server.document).map((c) => [c.value, c.label]));
  const swings = Object.fromEntries(stationsOf(server.document));
  const shown = FIGURES.filter(([key]) => look.strikes.some((strike) => strike[key] !== null));
  return (
    <>
      {look.strikes.length > 0 && (
        <CopyTable
          caption={taken ? "The first strikes, as they were taken" : "The first strikes, as they will be taken"}
        >
          <thead>
            <tr>
              <th>Club</th>
              <th>Swing</th>
              {shown.map(([key, label]) => (
                <th key={key}>{label}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {look.strikes.map((strike) => (
              <tr key={strike.id} data-aside={strike.set_aside !== null}>
                <td>{clubs[strike.club] ?? strike.club}</td>
                <td>{swings[strike.swing] ?? strike.swing}</td>
                {shown.map(([key, , places]) => (
                  <td key={key}>{strike[key] === null ? "" : plain(Number(strike[key]), places)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </CopyTable>
      )}
      {look.wrong.length > 0 && (
        <ul className={classes.wrong} aria-label="First wrong rows">
          {look.wrong.map((w) => (
            <li key={`${w.row}${w.column}`}>
              row {w.row}
              {w.column && `, ${w.column}`}
              {w.value && `, “${w.value}”`}: {w.reason}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
