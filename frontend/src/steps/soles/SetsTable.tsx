import type { Recommendation } from "../../api/client";
import { strokes } from "../../pictures/Verdict/Verdict";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Soles.module.css";

/** The best of the sets that are level, each with what it gains and gives up against the shown one. */
export function SetsTable({ result }: { result: Recommendation }) {
  if (result.sets.length === 0) return null;
  return (
    <>
      <CopyTable caption={`The best ${result.sets.length} of ${result.level_sets} level sets, strokes a round`}>
        <thead>
          <tr>
            <th className={parts.num}>Behind</th>
            <th>Set</th>
            <th>Gains on the shown</th>
            <th>Gives up</th>
          </tr>
        </thead>
        <tbody>
          {result.sets.map((set) => (
            <tr key={set.clubs.join()} data-on={set.shown}>
              <td className={parts.num}>{strokes(set.behind)}</td>
              <td>{set.clubs.join(" · ")}</td>
              <td>{set.shown ? "shown" : set.gains || "nothing"}</td>
              <td>{set.shown ? "" : set.gives_up || "nothing"}</td>
            </tr>
          ))}
        </tbody>
      </CopyTable>
      <p className={`${parts.unit} ${classes.because}`}>{result.first_because}</p>
    </>
  );
}
