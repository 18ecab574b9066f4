import { scaleLinear } from "d3-scale";
import type { Recommendation, Schemas } from "../../api/client";
import { showPercent } from "../../units/units";
import { lowest, outlinePath, type Point } from "../outline";
import classes from "./Verdict.module.css";

type Step = Schemas["StepOut"];
type Leak = Schemas["LeakOut"];

interface Props {
  result: Recommendation;
  steps: readonly Step[];
  onTake: (index: number) => void;
}

const STEP_NAMES = ["bends only", "one new head", "two", "three", "four"];
const MOST_LEAKS = 10;

/** A number of strokes, hundredths, a true minus. */
export const strokes = (value: number) => {
  const text = Math.abs(value).toFixed(2);
  return value < 0 && Number(text) !== 0 ? `−${text}` : text;
};

export const stepName = (step: Step) => (step.kind === "bag" ? "today’s bag" : (STEP_NAMES[step.heads_bought] ?? ""));

/** What a change wins and where the strokes go, on one ruler of strokes a round. */
export function Verdict({ result, steps, onTake }: Props) {
  const leaks = result.leaks.slice(0, MOST_LEAKS);
  const scale = rulerOf(steps, leaks);
  const taken = steps[result.taken_step];
  return (
    <div className={classes.sheet}>
      <ol className={classes.steps} aria-label="What a change wins">
        {steps.map((step, i) => (
          <li key={`${step.kind}${step.heads_bought}`}>
            <button
              type="button"
              className={classes.step}
              data-on={i === result.taken_step}
              aria-pressed={i === result.taken_step}
              onClick={() => onTake(i)}
            >
              <span className={classes.name}>
                <strong>{stepName(step)}</strong>
                <small>{step.words}</small>
              </span>
              <span className={classes.heads} aria-hidden>
                {step.clubs.map((club) => (
                  <Section key={club.code} outline={club.outline_mm} bought={!club.owned} />
                ))}
              </span>
              <span className={classes.track}>
                <Gain step={step} scale={scale} />
                <span className={classes.said}>{sayOf(step, i, result)}</span>
              </span>
            </button>
          </li>
        ))}
      </ol>
      <Ruler scale={scale} at={taken?.gain_strokes_round ?? 0} />
      <div className={classes.leakHead}>
        <h2>Where the strokes go</h2>
        <ul className={classes.key} aria-hidden>
          {taken?.kind !== "bag" && (
            <li>
              <i data-part="won" />
              won by this step
            </li>
          )}
          <li>
            <i data-part="club" />a club could still win
          </li>
          <li>
            <i data-part="player" />
            yours: practice
          </li>
        </ul>
      </div>
      <ol className={classes.leaks} aria-label="Where the strokes go">
        {leaks.map((leak) => (
          <LeakRow key={leak.situation} leak={leak} scale={scale} grounds={groundsOf(result)} />
        ))}
      </ol>
    </div>
  );
}

type Scale = ReturnType<typeof rulerOf>;

/** Percent of the ruler's length by strokes; it reaches whatever is drawn on it. */
function rulerOf(steps: readonly Step[], leaks: readonly Leak[]) {
  const ends = [
    ...steps.map((s) => Math.max(s.high ?? 0, s.gain_strokes_round)),
    ...leaks.map((l) => Math.max(l.won, 0) + l.club_part + l.player_part),
    0.2,
  ];
  return scaleLinear([0, 1.06 * Math.max(...ends)], [0, 100]);
}

const ROOM_FOR_WORDS = 40;
const ROOM_FOR_A_FIGURE = 12; // percent of the ruler's length, on a phone

/** What is said of a place on the ruler stands after it, or before it where there is no room. */
function beside(at: number, room: number) {
  const before = at > 100 - room;
  return { "data-before": before, style: before ? { right: `${100 - at}%` } : { left: `${at}%` } };
}

function Gain({ step, scale }: { step: Step; scale: Scale }) {
  const at = scale(Math.max(step.gain_strokes_round, 0));
  return (
    <>
      {step.low !== null && step.high !== null && step.kind !== "bag" && (
        <span
          className={classes.range}
          style={{ left: `${scale(Math.max(step.low, 0))}%`, width: `${scale(step.high - Math.max(step.low, 0))}%` }}
        />
      )}
      <span className={classes.mark} style={{ left: `${at}%` }} />
      {step.kind !== "bag" && (
        <strong className={classes.gain} {...beside(at, ROOM_FOR_A_FIGURE)}>
          {strokes(step.gain_strokes_round)}
        </strong>
      )}
    </>
  );
}

function sayOf(step: Step, i: number, result: Recommendation): string {
  const said: string[] = [];
  if (i === result.recommended_step) said.push(step.kind === "bag" ? "keep this" : "take this");
  else if (step.turned_down) said.push(`${strokes(step.more_strokes_round)} more: ${step.turned_down}`);
  if (i === result.taken_step && i !== result.recommended_step) said.push("taken by hand");
  if (step.price) said.push(`price ${step.price.toFixed(0)}`);
  return said.join(" · ");
}

function Section({ outline, bought }: { outline: readonly Point[]; bought: boolean }) {
  return (
    <svg viewBox="-32 -34 44 40" width={30} height={27} data-bought={bought}>
      <path d={outlinePath(outline)} transform={`translate(0 ${lowest(outline)}) scale(1 -1)`} />
    </svg>
  );
}

function Ruler({ scale, at }: { scale: Scale; at: number }) {
  const ticks = scale.ticks(8);
  const written = scale.tickFormat(8);
  return (
    <div className={classes.ruler}>
      <span className={classes.rulerName}>strokes a round</span>
      <span className={classes.rulerTrack}>
        {ticks.map((tick) => (
          <span key={tick} className={classes.tick} style={{ left: `${scale(tick)}%` }}>
            {written(tick)}
          </span>
        ))}
        <span className={classes.pointer} style={{ left: `${scale(Math.max(at, 0))}%` }} />
      </span>
    </div>
  );
}

const groundsOf = (result: Recommendation) => new Set(result.scenarios.map((s) => s.ground)).size;

function LeakRow({ leak, scale, grounds }: { leak: Leak; scale: Scale; grounds: number }) {
  const won = Math.max(leak.won, 0);
  const parts = [
    { part: "won", value: won },
    { part: "club", value: leak.club_part },
    { part: "player", value: leak.player_part },
  ];
  const end = won + leak.club_part + leak.player_part;
  const where = leak.grounds.length < grounds ? leak.grounds.join(", ") : `${showPercent(leak.share)} of shots`;
  return (
    <li className={classes.leak}>
      <span className={classes.leakName}>
        {leak.name}
        <small>{where}</small>
      </span>
      <span className={classes.bars}>
        {parts.map(({ part, value }, i) => (
          <span
            key={part}
            data-part={part}
            style={{
              left: `${scale(parts.slice(0, i).reduce((sum, p) => sum + p.value, 0))}%`,
              width: `${scale(value)}%`,
            }}
          />
        ))}
        <span className={classes.leakSum} {...beside(scale(end), ROOM_FOR_WORDS)}>
          <strong>{strokes(leak.strokes_round)}</strong> left{leak.drill && `: ${leak.drill}`}
        </span>
      </span>
    </li>
  );
}
