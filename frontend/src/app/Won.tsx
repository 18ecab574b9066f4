import type { Recommendation, Schemas } from "../api/client";
import { useEvidence, useSteps } from "../evidence/useEvidence";
import { SoleIcon } from "../pictures/SoleIcon/SoleIcon";
import { strokes } from "../pictures/Verdict/Verdict";
import { trimmed } from "../units/units";
import classes from "./SetBench.module.css";

/** What the shown set saves over today's bag, and how sure that is. */
export function Won({ result }: { result: Recommendation }) {
  const evidence = useEvidence();
  const steps = useSteps(result);
  const step = steps[result.taken_step];
  if (!step) return null;
  const laws = evidence.isPlaceholderData ? 0 : (evidence.data?.law_draws ?? 0);
  const gain = step.gain_strokes_round;
  return (
    <div className={classes.won} data-old={!result.whole_rack}>
      <p className={classes.saved}>
        <strong>{strokes(Math.abs(gain))}</strong> strokes a round {gain < 0 ? "more than today’s bag" : "saved"}
      </p>
      <p className={classes.why}>{rangeOf(step, result, laws)}</p>
    </div>
  );
}

function rangeOf(step: Schemas["StepOut"], result: Recommendation, laws: number): string {
  if (!result.whole_rack) return "Among the clubs near the last choice; the whole rack follows.";
  if (step.kind === "bag") return result.verdict;
  if (step.low === null || step.high === null || step.better_share === null) return "";
  const where = step.better_share > 0.995 ? "more than 99" : (100 * step.better_share).toFixed(0);
  return `8 of 10 between ${strokes(step.low)} and ${strokes(step.high)}; better than today’s bag in ${where} of 100 trials${
    laws > 0 ? "" : ", the ground model itself not yet tried"
  }`;
}

/** The clubs of today's bag, when they are what is shown. */
export function Bag({ result }: { result: Recommendation }) {
  const clubs = result.steps[result.taken_step]?.clubs ?? [];
  if (clubs.length === 0)
    return <p className={classes.problem}>No head on the rack or in the bag reaches these lofts.</p>;
  return clubs.map((club) => (
    <article key={club.code} className={classes.club} aria-label={`${trimmed(club.loft_deg)} degrees`}>
      <span className={classes.icon}>
        <SoleIcon outline={club.outline_mm} width={96} height={38} />
      </span>
      <p className={classes.figures}>
        <span className={classes.loft}>{trimmed(club.loft_deg)}°</span>
        <span className={classes.bounce}>{trimmed(club.bounce_deg)}° bounce</span>
      </p>
      <p className={classes.duty}>{club.name} stays</p>
      <p className={classes.why}>{result.bag.find((verdict) => verdict.code === club.code)?.why}</p>
    </article>
  ));
}
