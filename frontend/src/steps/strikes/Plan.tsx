import { stationOf } from "../../strikes/clubs";
import classes from "./Strikes.module.css";

interface Props {
  stations: readonly (readonly (string | undefined)[])[];
  /** Strikes that count, by station; null while they are not known. */
  counts: Record<string, number> | null;
  current: string;
  onChoose: (station: string) => void;
}

/** What is still to be hit: strikes that count of those wanted, station by station. */
export function Plan({ stations, counts, current, onChoose }: Props) {
  const hit = (key: string) => counts?.[key] ?? 0;
  const left = stations.reduce((sum, [key = ""]) => sum + Math.max(wanted(key) - hit(key), 0), 0);
  return (
    <section className={classes.plan} aria-label="Plan">
      <h2>{counts === null ? "To be hit" : left === 0 ? "Everything in the plan is hit" : `${left} still to hit`}</h2>
      <ul>
        {stations.map(([key = "", name]) => (
          <li key={key}>
            <button type="button" data-on={key === current} onClick={() => onChoose(key)}>
              {name} <strong>{counts === null ? wanted(key) : progress(hit(key), wanted(key))}</strong>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

const progress = (hit: number, asked: number) => (hit > asked ? `${hit} hit, ${asked} wanted` : `${hit} of ${asked}`);

const wanted = (station: string) => (stationOf(station) ?? stationOf("full"))?.wanted ?? 0;
