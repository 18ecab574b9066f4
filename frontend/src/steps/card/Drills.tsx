import type { Card } from "../../api/client";
import { DrillDrawing } from "../../pictures/DrillDrawing/DrillDrawing";
import { counted, plain } from "../../units/units";
import classes from "./Card.module.css";

/** What to practise: two or three drills, each with why and what it is worth. */
export function Drills({ card }: { card: Card }) {
  if (card.drills.length === 0) return null;
  return (
    <section className={classes.drills} aria-label="Drills">
      <h2>What to practise, {counted(card.practice_weeks, "week")}, twice a week</h2>
      <ul>
        {card.drills.map((drill) => (
          <li key={drill.key}>
            <h3>
              {drill.name}
              <span>
                {plain(drill.worth_strokes_round, 2)} strokes a round with half the scatter; {drill.why}
              </span>
            </h3>
            <DrillDrawing drawing={drill.drawing} name={drill.name} hand={card.hand} />
            <p>
              {drill.set_up} {drill.do}
            </p>
            <p>
              <strong>
                Pass {drill.mark} of {drill.count}.
              </strong>{" "}
              {drill.score}
              {drill.beat !== null && ` ${drill.beat} beats a minute.`}
            </p>
            <p className={classes.caution}>{drill.stop}</p>
          </li>
        ))}
      </ul>
    </section>
  );
}
