import { useState } from "react";
import type { Card } from "../../api/client";
import { useStore, useUnits } from "../../app/context";
import { ClubAtBall, Stance } from "../../pictures/Stance/Stance";
import { metres, metresPerSecond, plain, showDistance, showPercent, showSpeed, trimmed } from "../../units/units";
import classes from "./Card.module.css";

type Lie = Card["lies"][number];

interface Props {
  lies: Card["lies"];
  outlines: Card["outlines_mm"];
  hand: Card["hand"];
}

/** How to play each lie: one chosen from all that the player faces, with its pictures and facts. */
export function Lies({ lies, outlines, hand }: Props) {
  const [at, setAt] = useState<string | null>(null);
  const lie = lies.find((one) => one.key === at) ?? lies[0];
  if (!lie) return null;
  return (
    <section className={classes.lies} aria-label="How to play each lie">
      <h2>How to play each lie</h2>
      <div className={classes.split}>
        <ul className={classes.list}>
          {lies.map((one) => (
            <li key={one.key}>
              <button type="button" data-on={one === lie} aria-pressed={one === lie} onClick={() => setAt(one.key)}>
                <span>
                  {one.shot_name}, {one.ground}
                </span>
                <strong>{trimmed(one.loft_deg)}°</strong>
                <span data-light={one.light}>{one.light}</span>
              </button>
            </li>
          ))}
        </ul>
        <Shown lie={lie} hand={hand} outline={outlines[lie.code] ?? []} />
      </div>
    </section>
  );
}

function Shown({ lie, hand, outline }: { lie: Lie; hand: Card["hand"]; outline: number[][] }) {
  const units = useUnits();
  const { draft } = useStore();
  const far = (value: number, places = 0) => showDistance(metres(value), units.distance, places);
  const own = lie.lean_deg - lie.lean_change_deg;
  const facts = [
    ["club", `${trimmed(lie.loft_deg)}° ${lie.club}, ${lie.opened}`],
    ["ball", `${lie.ball_words}, within ${plain(lie.ball_doubt_mm)}\u00a0mm`],
    ["handle", `${trimmed(lie.lean_deg)}° ahead: ${lie.lean_words}`],
    ["weight", `${showPercent(lie.weight)} on the lead foot`],
    ["stance", `${plain(lie.stance_mm)}\u00a0mm between the heels${turned(lie.stance_open_deg)}`],
    ["swing", `${lie.clock}, ${showSpeed(metresPerSecond(lie.speed_mps), units.speed)}`],
    [
      "land it",
      `${far(lie.carry_m)}, ${far(Math.abs(lie.on_green_m))} ${lie.on_green_m < 0 ? "short of" : "onto"} the green; ${far(lie.run_m)} of run`,
    ],
    ["sole", `${plain(Math.abs(lie.sole_mm))}\u00a0mm ${lie.sole_mm < 0 ? "behind" : "ahead of"} the ball's middle`],
    ["finish", lie.finish],
  ] as const;
  const more = lie.safer ? lie.safer.strokes - lie.strokes : 0;
  return (
    <div className={classes.shown}>
      <h3>
        {lie.shot_name}, {lie.ground}
      </h3>
      <div className={classes.pictures}>
        <Stance
          ball={lie.ball_mm}
          width={lie.stance_mm}
          open={lie.stance_open_deg}
          hand={hand}
          words={`From above: ball ${lie.ball_words}, target at the right`}
        />
        <ClubAtBall
          outline={outline}
          lean={lie.lean_deg}
          own={own}
          words={`At the ball: ${trimmed(lie.lean_deg)} degrees of lean, ${draft.player.name} has ${trimmed(own)}`}
        />
      </div>
      <dl className={classes.facts}>
        {facts.map(([name, words]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{words}</dd>
          </div>
        ))}
        <div>
          <dt>risk</dt>
          <dd>
            <strong data-light={lie.light}>{lie.light}</strong>: {lie.risk}
            {lie.safer &&
              `. Safer: ${lie.safer.club}, ${lie.safer.opened}, ${plain(Math.abs(more), 2)} strokes ${more > 0 ? "more" : "less"}`}
          </dd>
        </div>
      </dl>
      {lie.cautions.map((caution) => (
        <p key={caution} className={classes.caution}>
          {caution}
        </p>
      ))}
    </div>
  );
}

const turned = (degrees: number) =>
  Math.abs(degrees) < 1 ? "" : `, feet ${plain(Math.abs(degrees))}° to the ${degrees > 0 ? "left" : "right"}`;
