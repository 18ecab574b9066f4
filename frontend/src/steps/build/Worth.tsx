import type { Build } from "../../api/client";
import { useUnits } from "../../app/context";
import { counted, metres, plain, showDistance, trimmed } from "../../units/units";
import classes from "./Build.module.css";

/** What the work makes of a club: its swing weight, start, grams, worth, and what is there for it. */
export function Worth({ club, sheet }: { club: Build["clubs"][number]; sheet: Build }) {
  const units = useUnits();
  const { built } = club;
  return (
    <>
      <p className={classes.note}>
        {built && (
          <>
            <strong>{built.swing_weight}</strong> at {trimmed(built.length_in, 2)}&nbsp;in, {plain(built.mass_g)}
            &nbsp;g, balance {plain(built.balance_in, 1)}&nbsp;in from the butt
            {club.unmatched && ": more than a point off the others"}.{" "}
          </>
        )}
        {club.lie_asked_deg !== null && `The mark asks for a lie of ${trimmed(club.lie_asked_deg, 2)}°. `}
        {club.lie_by_deg !== 0 &&
          `Lie ${trimmed(Math.abs(club.lie_by_deg), 2)}° ${club.lie_by_deg > 0 ? "upright" : "flat"} moves the start ${showDistance(metres(Math.abs(club.start_m)), units.distance, 1)} ${club.start_m < 0 ? "left" : "right"} at ${showDistance(metres(sheet.seen_at_m), units.distance)}. `}
        {club.removed_g > 0 &&
          `${plain(club.removed_g, 1)}\u00a0g ground off, ${plain(club.deepest_mm, 1)}\u00a0mm at the deepest. `}
        {club.worth_strokes_round !== null &&
          `The work on the head is worth ${plain(club.worth_strokes_round, 2)} strokes a round. `}
        {trimmed(club.bend_left_deg, 2)}° of bending is left afterwards.
        {club.on_shelf !== null &&
          (sheet.order?.heads.includes(club.name)
            ? " The head is set aside for this set."
            : ` ${club.on_shelf} on the shelf.`)}
        {club.weeks > 0 && ` Ready in ${counted(club.weeks, "week")}.`}
      </p>
      {club.notes.map((note) => (
        <p key={note} className={classes.note} data-changed>
          {note}
        </p>
      ))}
    </>
  );
}
