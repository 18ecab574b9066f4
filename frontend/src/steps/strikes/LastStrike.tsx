import type { Strike } from "../../api/client";
import { useUnits } from "../../app/context";
import { inReader, plain, SPEED_LABEL } from "../../units/units";
import classes from "./Strikes.module.css";

interface Props {
  strike: Strike | undefined;
  names: Record<string, string>;
  /** Why the strikes so far are not known, if they are not. */
  unread: string | null;
}

/** The strike just hit: the figures that matter, large enough to be read from beside the player. */
export function LastStrike({ strike, names, unread }: Props) {
  const units = useUnits();
  const of = (unit: string, value: number | null) =>
    value === null ? null : inReader({ unit, percent: false }, value, units);
  if (!strike)
    return (
      <p className={classes.nothing} role="status">
        {unread ?? "No strike yet. The first one shows here, large enough to read from the mat."}
      </p>
    );
  const figures: readonly (readonly [string, number | null, string, number])[] = [
    ["entry", strike.entry_mm, "mm", 0],
    ["attack", strike.attack_deg, "°", 1],
    ["lean", strike.lean_deg, "°", 1],
    ["carry", of("m", strike.carry_m), units.distance, 1],
    strike.exit_mm !== null && strike.entry_mm !== null
      ? ["mark in the sand", strike.exit_mm - strike.entry_mm, "mm", 0]
      : ["head speed", of("m/s", strike.club_speed_mps), SPEED_LABEL[units.speed], 1],
  ];
  return (
    <dl className={classes.last} data-aside={strike.set_aside !== null} aria-label="Last strike">
      <div>
        <dt>last strike</dt>
        <dd className={classes.where}>
          {names[strike.swing] ?? strike.swing}
          {strike.simulated && ", simulated"}
          {strike.set_aside !== null && `, ${strike.set_aside}`}
        </dd>
      </div>
      {figures.map(([name, value, unit, places]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>
            {value === null ? "–" : plain(value, places)}
            <small>{value === null ? "" : unit}</small>
          </dd>
        </div>
      ))}
    </dl>
  );
}
