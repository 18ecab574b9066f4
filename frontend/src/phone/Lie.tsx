import { useState } from "react";
import { ClubAtBall, Stance } from "../pictures/Stance/Stance";
import { metres, plain, showDistance, showPercent, trimmed } from "../units/units";
import type { Page } from "./usePage";

/** How to play a lie: chosen from those that the player faces, most frequent first. */
export function Lie({ page }: { page: Page }) {
  const { card, distance } = page;
  const [at, setAt] = useState(card.lies[0]?.key ?? "");
  const lie = card.lies.find((one) => one.key === at);
  if (!lie) return <p>No lie is on this page.</p>;
  const far = (value: number) => showDistance(metres(value), distance);
  const facts = [
    ["club", `${trimmed(lie.loft_deg)}° ${lie.club}, ${lie.opened}`],
    ["ball", lie.ball_words],
    ["handle", `${trimmed(lie.lean_deg)}° ahead: ${lie.lean_words}`],
    ["weight", `${showPercent(lie.weight)} forward, stays there`],
    ["swing", lie.clock],
    [
      "land it",
      `${far(lie.carry_m)} on, sole ${plain(Math.abs(lie.sole_mm))}\u00a0mm ${lie.sole_mm < 0 ? "behind" : "ahead of"} the ball's middle`,
    ],
    ["finish", lie.finish],
  ] as const;
  const more = lie.safer ? lie.safer.strokes - lie.strokes : 0;
  return (
    <>
      <label className="choose">
        Where does it lie?
        <select value={at} onChange={(event) => setAt(event.currentTarget.value)}>
          {card.lies.map((one) => (
            <option key={one.key} value={one.key}>
              {one.shot_name}, {one.ground}
            </option>
          ))}
        </select>
      </label>
      <h1>
        {lie.shot_name}, {lie.ground}
      </h1>
      <div className="pictures">
        <Stance
          ball={lie.ball_mm}
          width={lie.stance_mm}
          open={lie.stance_open_deg}
          hand={card.hand}
          words={`From above: ball ${lie.ball_words}, target at the right`}
        />
        <ClubAtBall
          outline={card.outlines_mm[lie.code] ?? []}
          lean={lie.lean_deg}
          own={lie.lean_deg - lie.lean_change_deg}
          words={`At the ball: ${trimmed(lie.lean_deg)} degrees of lean`}
        />
      </div>
      <dl>
        {facts.map(([name, words]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
      <p className="risk" data-light={lie.light}>
        <strong>{lie.light}</strong>
        {lie.safer &&
          `. Safer: the ${lie.safer.club}, ${lie.safer.opened}, ${plain(Math.abs(more), 1)} strokes ${more > 0 ? "more" : "less"}`}
      </p>
      {lie.cautions.map((caution) => (
        <p key={caution} className="caution">
          {caution}
        </p>
      ))}
    </>
  );
}
