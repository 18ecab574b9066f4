import type { Schemas } from "../../api/client";
import { counted, plain, showPercent } from "../../units/units";
import classes from "./Log.module.css";
import { signed } from "./signed";
import type { CALLS, Log } from "./useLog";

const HEADLINES: Record<keyof typeof CALLS, string> = {
  "too few": "Too few shots to say",
  "as expected": "As expected",
  worse: "Worse than expected",
  better: "Better than expected",
  open: "Not settled yet",
};

/** The one thing: whether the set does what was expected. */
export function Verdict({ log }: { log: Log }) {
  const { whole } = log;
  if (!whole) return <p className={classes.note}>None of these shots was hit with a club of this bag.</p>;
  const over = whole.difference;
  const rounds = log.rounds.length;
  return (
    <section className={classes.verdict} aria-label="Verdict">
      <p className={classes.big}>
        {HEADLINES[whole.call]}
        {whole.call !== "too few" && `: ${plain(Math.abs(over), 2)} strokes a shot ${over > 0 ? "more" : "less"}`}
      </p>
      <p>
        {counted(whole.shots, "shot")} of {counted(rounds, "round")}: seen {plain(whole.seen, 2)}, expected{" "}
        {plain(whole.expected, 2)}; 8 of 10 between {signed(whole.low)} and {signed(whole.high)}. The log counts{" "}
        {showPercent(whole.weight)} in that, the model the rest.
        {log.unknown > 0 && ` ${log.unknown} more are kept and not judged: their club is not in this bag.`}
      </p>
    </section>
  );
}

/** Which part was off: strike, distance, choice of club. */
export function Parts({ parts: found, rounds }: { parts: Schemas["PartsOut"]; rounds: number }) {
  return (
    <section className={classes.section} aria-label="Which part was off">
      <h2>Which part was off, strokes a round over {counted(rounds, "round")}</h2>
      <dl className={classes.three}>
        <div>
          <dt>strike</dt>
          <dd>{signed(found.strike)}</dd>
          <dd>
            {found.bad_seen} heavy or thin of {found.known}, {plain(found.bad_expected, 1)} expected; each costs{" "}
            {plain(found.bad_costs, 2)}
          </dd>
        </div>
        <div>
          <dt>distance</dt>
          <dd>{signed(found.distance)}</dd>
          <dd>all else with the club that was taken: how far, how straight, putts</dd>
        </div>
        <div>
          <dt>choice of club</dt>
          <dd>{signed(found.choice)}</dd>
          <dd>{found.instead[0]?.words ?? "every shot with the advised club"}</dd>
        </div>
      </dl>
      {found.instead.length > 1 && (
        <ul className={classes.plain}>
          {found.instead.slice(1, 5).map((one) => (
            <li key={`${one.taken}|${one.advised}`}>{one.words}</li>
          ))}
        </ul>
      )}
    </section>
  );
}
