import { VisuallyHidden } from "@mantine/core";
import { useState } from "react";
import type { Carries, Cell } from "../../api/client";
import { useUnits } from "../../app/context";
import { usePlace } from "../../app/usePlace";
import { useRemembered } from "../../app/useRemembered";
import { useQueue } from "../../strikes/queue";
import { withAhead } from "../../strikes/sending";
import { counted, inDistance, metres, plain } from "../../units/units";
import { Wide } from "../parts/Wide";
import classes from "./Carries.module.css";
import { CellPanel } from "./CellPanel";
import { OwnSwings } from "./OwnSwings";
import { PasteBox } from "./PasteBox";
import { PlayerNumbers } from "./PlayerNumbers";

/** The matrix of clubs and swings, filled from the keyboard: arrows choose the cell, figures and Enter take a ball. */
export function Measure({ carries }: { carries: Carries }) {
  const units = useUnits();
  const queue = useQueue();
  const next = carries.next[0];
  // where it starts is what to measure next; from then on only the fitter moves it
  const entries = carries.rows.map(({ name, loft_deg }) => ({ name, loft: loft_deg }));
  const at = usePlace("measured", entries, Math.max(carries.rows.findIndex((row) => row.code === next?.club), 0)); // biome-ignore format: one line
  const [start] = useState(next?.swing);
  const [chosen, setSwing] = useRemembered<string | null>("measured-swing", null);
  const place = {
    row: at.place ?? -1,
    swing: Math.max(carries.swings.findIndex((swing) => swing.key === (chosen ?? start)), 0),
  }; // biome-ignore format: a place in few lines
  const setAt = (to: { row: number; swing: number }) => {
    if (to.row !== at.place) at.choose(to.row);
    setSwing(carries.swings[to.swing]?.key ?? null);
  };
  const cellAt = (row: number, swing: number) =>
    carries.cells.find(
      (c) =>
        c.club === carries.rows[row]?.code &&
        c.loft_deg === carries.rows[row]?.loft_deg &&
        c.swing === carries.swings[swing]?.key,
    );
  const cell = cellAt(place.row, place.swing);
  const strikes = withAhead(carries.strikes, queue.ahead);
  const move = (rows: number, swings: number) => {
    const row = Math.min(Math.max(place.row + rows, 0), carries.rows.length - 1);
    const swing = Math.min(Math.max(place.swing + swings, 0), carries.swings.length - 1);
    setAt({ row, swing });
  };
  const onward = () => {
    const last = place.swing === carries.swings.length - 1;
    setAt(
      last ? { row: Math.min(place.row + 1, carries.rows.length - 1), swing: 0 } : { ...place, swing: place.swing + 1 },
    );
  };
  const d = (value: number, places = 0) => plain(inDistance(metres(value), units.distance), places);
  return (
    <>
      <Wide label="Carries by club and swing, table">
        <table className={classes.matrix} aria-label="Carries by club and swing">
          <thead>
            <tr>
              <th>
                carry, {units.distance}
                <small>mean of the balls that count</small>
              </th>
              {carries.swings.map((swing) => (
                <th key={swing.key}>
                  {swing.name}
                  {swing.key !== "full" && <small>{plain(100 * swing.speed_share)}&nbsp;% of full speed</small>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {carries.rows.map((row, r) => (
              <tr key={row.code + row.loft_deg}>
                <th scope="row">
                  {row.name}
                  <small>{plain(row.loft_deg, 1)}°</small>
                </th>
                {carries.swings.map((swing, s) => {
                  const here = cellAt(r, s);
                  return (
                    <td key={swing.key}>
                      {here && (
                        <button
                          type="button"
                          className={classes.cell}
                          data-on={r === place.row && s === place.swing}
                          data-source={here.source}
                          tabIndex={at.place === null ? 0 : -1}
                          onClick={() => setAt({ row: r, swing: s })}
                        >
                          <VisuallyHidden>
                            {`${row.name}, ${swing.name}: ${d(here.carry_m)}\u00a0${units.distance}, ${here.source}`}
                          </VisuallyHidden>
                          <strong aria-hidden>{d(here.carry_m)}</strong>
                          <span aria-hidden>
                            {d(here.low_m)} to {d(here.high_m)}
                          </span>
                          <Balls cell={here} waiting={waitingFor(here)} />
                          {next && next.club === here.club && next.swing === here.swing && (
                            <small>
                              <em>measure next</em>
                            </small>
                          )}
                        </button>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      {at.place === null && (
        <p role="alert" className={classes.told}>
          {at.was?.name} is not among these clubs any longer: choose the one that is hit.
        </p>
      )}
      {cell && (
        <CellPanel
          key={`${at.turn} ${cell.swing}`}
          cell={cell}
          strikes={strikes.filter((s) => s.club === cell.club && s.swing === cell.swing)}
          outliers={carries.outliers}
          queue={queue}
          onMove={move}
          onFull={onward}
        />
      )}
      {next && <p className={classes.told}>Measure next: {next.words}.</p>}
      <PasteBox cell={cell ?? null} />
      <OwnSwings />
      <PlayerNumbers carries={carries} />
    </>
  );

  function waitingFor(here: Cell) {
    return queue.waiting.filter(
      (a) => a.kind === "take" && a.strike.club === here.club && a.strike.swing === here.swing,
    ).length;
  }
}

/** Five places for five balls: those that count, those on their way, those set aside. */
function Balls({ cell, waiting }: { cell: Cell; waiting: number }) {
  if (cell.count + cell.aside + waiting === 0) return <i>{cell.source}</i>;
  const words = [counted(cell.count, "ball")];
  if (waiting > 0) words.push(`${waiting} waiting`);
  if (cell.aside > 0) words.push(`${cell.aside} aside`);
  return <i>{words.join(", ")}</i>;
}
