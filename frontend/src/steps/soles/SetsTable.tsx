import type { Recommendation } from "../../api/client";
import { plain } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Soles.module.css";

/** The best sets in the order of their value, each with what it gains and gives up against the one proposed. */
export function SetsTable({ result }: { result: Recommendation }) {
  const proposed = result.sets[0];
  const inOrder = [...result.sets].sort((a, b) => b.score - a.score);
  return (
    <>
      <CopyTable caption={`The best ${result.sets.length} sets, by value`}>
        <thead>
          <tr>
            <th className={parts.num}>Value, of 100</th>
            <th>Set</th>
            <th>Gains on the proposed</th>
            <th>Gives up</th>
          </tr>
        </thead>
        <tbody>
          {inOrder.map((set) => (
            <tr key={set.clubs.join()} data-on={set === proposed}>
              <td className={parts.num}>{plain(100 * set.score, 1)}</td>
              <td>{set.clubs.join(" · ")}</td>
              <td>{set === proposed ? "proposed" : set.gains || "nothing"}</td>
              <td>{set === proposed ? "" : set.gives_up || "nothing"}</td>
            </tr>
          ))}
        </tbody>
      </CopyTable>
      <p className={`${parts.unit} ${classes.because}`}>{result.first_because}</p>
    </>
  );
}
