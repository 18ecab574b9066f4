import type { Bag } from "../../api/client";
import { showDay } from "../../units/days";
import { trimmed } from "../../units/units";
import parts from "../parts/parts.module.css";
import { Wide } from "../parts/Wide";
import classes from "./Bag.module.css";

/** Wedges as they were before the studio bent or ground them, and those that left the bag; newest first. */
export function FormerClubs({ former }: { former: Bag["former"] }) {
  if (former.length === 0) return null;
  return (
    <section className={classes.former}>
      <h2>As they were</h2>
      <Wide label="Clubs as they were">
        <table className={parts.table} aria-label="Clubs as they were">
          <thead>
            <tr>
              <th>Club</th>
              <th className={parts.num}>Loft °</th>
              <th className={parts.num}>Bounce °</th>
              <th className={parts.num}>Lie °</th>
              <th>Until</th>
              <th>Since then</th>
            </tr>
          </thead>
          <tbody>
            {former.map((one) => (
              <tr key={one.code}>
                <td>{one.wedge.name}</td>
                <td className={parts.num}>{trimmed(one.wedge.loft_deg)}</td>
                <td className={parts.num}>{trimmed(one.wedge.bounce_deg)}</td>
                <td className={parts.num}>{trimmed(one.wedge.lie_deg)}</td>
                <td>{showDay(one.until)}</td>
                <td>{one.became}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </section>
  );
}
