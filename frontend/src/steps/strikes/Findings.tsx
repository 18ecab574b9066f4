import { Button } from "@mantine/core";
import { Link } from "react-router";
import type { Schemas, SessionSummary, Units } from "../../api/client";
import { useStore, useUnits } from "../../app/context";
import { inReader, plain, SPEED_LABEL } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Strikes.module.css";

type Figure = Schemas["FigureOut"];
const HABIT = { attack_deg: "attack_deg", lean_deg: "lean_deg", entry: "entry_mm" } as const;
const PICTURES = { entries: "above", sole_pass: "on Soles", set_plane: "on Soles" } as const;

/** What the strikes say together: figures by station, drift and faults; and the habit, to be taken over for the fitting. */
export function Findings({ session, station }: { session: SessionSummary; station: string }) {
  const { server, draft, edit } = useStore();
  const units = useUnits();
  const habit = session.overall.figures.filter((f) => f.key in HABIT);
  const delivery = draft.player.delivery;
  const known = habit.filter((f) => {
    const now = delivery[HABIT[f.key as keyof typeof HABIT]];
    const close = Math.abs(now.mean - f.mean) < 0.006 && Math.abs(now.spread - f.spread) < 0.006;
    return now.source === "measured" && now.count === f.count && close;
  });
  const take = () => {
    const changes = Object.fromEntries(
      habit.map((f) => [
        HABIT[f.key as keyof typeof HABIT],
        { mean: round(f.mean), spread: round(f.spread), count: f.count, source: "measured" as const },
      ]),
    );
    edit("player", { ...draft.player, delivery: { ...delivery, ...changes } });
  };
  const rows = [session.overall, ...session.stations];
  return (
    <>
      {(session.faults.length > 0 || session.trends.length > 0) && (
        <ul className={classes.faults} aria-label="Findings">
          {session.faults.map((fault) => (
            <li key={fault.key}>
              <strong>{fault.words}</strong> {fault.shown} of {fault.of}: {fault.rule}.{" "}
              {fault.picture === "entries" ? (
                "See the marks above."
              ) : (
                <Link to={`/fittings/${server.id}/soles`}>See it {PICTURES[fault.picture]}.</Link>
              )}
            </li>
          ))}
          {session.trends.map((trend) => (
            <li key={trend.name}>{trend.words}.</li>
          ))}
        </ul>
      )}
      <CopyTable caption="What the strikes say">
        <thead>
          <tr>
            <th>Station</th>
            <th>Strikes</th>
            <th>Attack °</th>
            <th>Lean °</th>
            <th>Entry mm</th>
            <th>Head speed {SPEED_LABEL[units.speed]}</th>
            <th>Contact height mm</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.station} data-on={row.station === station}>
              <td>{row.name}</td>
              <td>
                {row.count}
                {row.aside > 0 && `, ${row.aside} aside`}
              </td>
              {["attack_deg", "lean_deg", "entry", "club_speed", "impact_height"].map((key) => (
                <td key={key}>
                  {shown(
                    row.figures.find((f) => f.key === key),
                    units,
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </CopyTable>
      {rows.length > 0 && (
        <p className={classes.foot}>
          Mean ± spread from strike to strike; in brackets where the mean itself lies in 8 of 10 cases, and how many
          strikes it is from.
        </p>
      )}
      <div className={classes.habit}>
        <Button disabled={habit.length === 0 || known.length === habit.length} onClick={take}>
          Use as the habit
        </Button>
        <Link to={`/fittings/${server.id}/import`}>Strikes from a file</Link>
        <a href={`/api/fittings/${server.id}/strikes.csv`} download>
          Save strikes as CSV
        </a>
        {session.strikes.some((strike) => strike.origin === "device") && (
          <a href={`/api/fittings/${server.id}/recording.jsonl`} download>
            Save the recording
          </a>
        )}
        <span className={parts.unit}>
          {habit.length === 0
            ? "The habit follows from partial swings: attack, lean and entry of at least one strike."
            : known.length === habit.length
              ? "The fitting stands on these strikes."
              : `Partial swings together: ${habit.map((f) => `${f.name} ${plain(f.mean, 1)} ± ${plain(f.spread, 1)}\u00a0${f.unit} from ${f.count}`).join("; ")}. On Player now: attack ${plain(delivery.attack_deg.mean, 1)}°, lean ${plain(delivery.lean_deg.mean, 1)}°, entry ${plain(delivery.entry_mm.mean)}\u00a0mm.`}
        </span>
      </div>
    </>
  );
}

/** Mean with its interval, count, and what was inferred or left out. */
function shown(figure: Figure | undefined, units: Units) {
  if (!figure) return "";
  const places = figure.unit === "mm" ? 0 : 1;
  const said = (value: number) => plain(inReader({ unit: figure.unit, percent: false }, value, units), places);
  const notes = [
    figure.inferred > 0 ? `${figure.inferred === figure.count ? "all" : figure.inferred} inferred` : "",
    figure.outliers.length > 0 ? `${figure.outliers.length} far off, left out` : "",
  ].filter(Boolean);
  return (
    <>
      {said(figure.mean)} ± {said(figure.spread)}{" "}
      <span className={parts.unit}>
        ({said(figure.low)} to {said(figure.high)}; {figure.count}
        {notes.length > 0 && `, ${notes.join(", ")}`})
      </span>
    </>
  );
}

const round = (value: number) => Math.round(100 * value) / 100;
