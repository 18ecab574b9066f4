import type { Build } from "../../api/client";
import { showMoment } from "../../units/days";
import { trimmed } from "../../units/units";
import classes from "./Build.module.css";
import type { Tick } from "./useBuild";

interface Props {
  club: Build["clubs"][number];
  /** What of its work is done; null while it is not at the bench. */
  ticks: Tick[] | null;
  onTick: (operation: number, done: boolean) => void;
}

/** What the bench does to a club in its order, with tolerances and cautions. */
export function Work({ club, ticks, onTick }: Props) {
  return (
    <ol className={classes.work} aria-label={`${club.name}, order of work`}>
      {club.operations.map((one, n) => (
        <li key={`${one.key}-${n}`}>
          {ticks ? (
            <label className={classes.tick}>
              <input
                type="checkbox"
                checked={ticks.some((tick) => tick.operation === n)}
                onChange={(event) => onTick(n, event.currentTarget.checked)}
              />
              {one.words}
            </label>
          ) : (
            one.words
          )}
          {one.wanted !== null && one.tolerance !== null && (
            <span className={classes.figure}>
              {" "}
              {one.unit === "points" ? "" : trimmed(one.wanted, 2)} ± {trimmed(one.tolerance, 2)}
              {one.unit === "degrees" ? "°" : one.unit === "points" ? " point" : ` ${one.unit}`}
            </span>
          )}
          {one.caution && <small>{one.caution}</small>}
          {ticks && <TickedBy tick={ticks.find((tick) => tick.operation === n)} />}
        </li>
      ))}
    </ol>
  );
}

/** Who did a piece of work, and when; empty until the server has it, so that no row moves from under a finger then. */
function TickedBy({ tick }: { tick: Tick | undefined }) {
  return <small className={classes.by}>{tick?.at ? `${tick.by}, ${showMoment(tick.at)}` : "\u00a0"}</small>;
}
