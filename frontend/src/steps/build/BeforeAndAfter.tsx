import type { Build } from "../../api/client";
import { GroundSole } from "../../pictures/GroundSole/GroundSole";
import { plain, trimmed } from "../../units/units";
import parts from "../parts/parts.module.css";
import { Wide } from "../parts/Wide";
import classes from "./Build.module.css";

/** The sole before and after the bench's work, drawn and in figures. */
export function BeforeAndAfter({ club }: { club: Build["clubs"][number] }) {
  const { before, after } = club;
  return (
    <div className={classes.pair}>
      <GroundSole
        before={before.outline_mm}
        after={after.outline_mm}
        words={`${club.name} before and after: bounce ${trimmed(before.bounce_deg, 2)} and ${trimmed(after.bounce_deg, 2)} degrees`}
      />
      <Wide label={`${club.name}, before and after`}>
        <table className={parts.table} aria-label={`${club.name}, before and after`}>
          <thead>
            <tr>
              <th>
                <span className={classes.dashed}>before</span> and after
              </th>
              <th className={parts.num}>Loft °</th>
              <th className={parts.num}>Bounce °</th>
              <th className={parts.num}>Lie °</th>
              <th className={parts.num}>Edge mm</th>
              <th className={parts.num}>Mass g</th>
            </tr>
          </thead>
          <tbody>
            {[before, after].map((state, i) => (
              <tr key={i === 0 ? "before" : "after"}>
                <td>{i === 0 ? "as it comes" : "as built"}</td>
                <td className={parts.num}>{trimmed(state.loft_deg, 2)}</td>
                <td className={parts.num}>{trimmed(state.bounce_deg, 2)}</td>
                <td className={parts.num}>{trimmed(state.lie_deg, 2)}</td>
                <td className={parts.num}>{plain(state.edge_height_mm, 1)}</td>
                <td className={parts.num}>{plain(state.mass_g, 1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </div>
  );
}
