import type { Strike } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore, useUnits } from "../../app/context";
import { clubsOf, stationsOf } from "../../strikes/clubs";
import { inReader, plain, signOf } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import classes from "./Import.module.css";
import type { Look } from "./mapping";

const FIGURES = TABLES.strike.filter((figure) => figure.key !== "loft_deg");

/** The first strikes as they will be taken, in the units of who reads; and the first rows that cannot be. */
export function Preview({ look, taken = false }: { look: Look; taken?: boolean }) {
  const { server } = useStore();
  const units = useUnits();
  const clubs = Object.fromEntries(clubsOf(server.document).map((c) => [c.value, c.label]));
  const swings = Object.fromEntries(stationsOf(server.document));
  const figure = (strike: Strike, key: string) => (strike as unknown as Record<string, number | null>)[key] ?? null;
  const shown = FIGURES.filter(({ key }) => look.strikes.some((strike) => figure(strike, key) !== null));
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
              {shown.map((f) => (
                <th key={f.key}>
                  {f.words} {signOf(f.unit, units)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {look.strikes.map((strike) => (
              <tr key={strike.id} data-aside={strike.set_aside !== null}>
                <td>{clubs[strike.club] ?? strike.club}</td>
                <td>{swings[strike.swing] ?? strike.swing}</td>
                {shown.map((f) => {
                  const value = figure(strike, f.key);
                  return <td key={f.key}>{value === null ? "" : plain(inReader(f, value, units), f.places)}</td>;
                })}
              </tr>
            ))}
          </tbody>
        </CopyTable>
      )}
      {look.wrong.length > 0 && (
        <ul className={classes.wrong} aria-label="First wrong rows">
          {look.wrong.map((w) => (
            <li key={`${w.row} ${w.column} ${w.reason}`}>
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
