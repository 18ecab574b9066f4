import type { Recommendation } from "../../api/client";
import { plain } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";

/** The best sets, each with what it gains and gives up against the first. */
export function SetsTable({ result }: { result: Recommendation }) {
  return (
    <CopyTable caption={`The best ${result.sets.length} sets`}>
      <thead>
        <tr>
          <th className={parts.num}>Value</th>
          <th>Set</th>
          <th>Gains on the first</th>
          <th>Gives up</th>
        </tr>
      </thead>
      <tbody>
        {result.sets.map((set, i) => (
          <tr key={set.clubs.join()} data-on={i === 0}>
            <td className={parts.num}>{plain(100 * set.score, 1)}</td>
            <td>{set.clubs.join(" · ")}</td>
            <td>{i === 0 ? "" : set.gains || "nothing"}</td>
            <td>{i === 0 ? "" : set.gives_up || "nothing"}</td>
          </tr>
        ))}
      </tbody>
    </CopyTable>
  );
}
