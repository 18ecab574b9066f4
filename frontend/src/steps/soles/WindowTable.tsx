import type { Candidate } from "../../api/client";
import { useUnits } from "../../app/context";
import type { DeskHead } from "../../desk/useDesk";
import { inDistance, metres, plain, showPercent, trimmed } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";

/** The numbers of the sole pass and the strike windows. */
export function WindowTable({ candidates, heads }: { candidates: Candidate[]; heads: DeskHead[] }) {
  const units = useUnits();
  const mm = (value: number | null | undefined) => (value === null || value === undefined ? "none" : plain(value));
  return (
    <CopyTable caption="Pass and windows in numbers">
      <thead>
        <tr>
          <th>Head</th>
          <th className={parts.num}>Loft °</th>
          <th className={parts.num}>Bounce °</th>
          <th>Outcome</th>
          <th className={parts.num}>Carry {units.distance}</th>
          <th className={parts.num}>Edge mm</th>
          <th className={parts.num}>Face mm</th>
          <th className={parts.num}>Material g</th>
          <th className={parts.num}>From mm</th>
          <th className={parts.num}>To mm</th>
          <th className={parts.num}>Inside</th>
          <th className={parts.num}>Quality</th>
        </tr>
      </thead>
      <tbody>
        {heads.map((head, i) => (
          <tr key={candidates[i]?.code ?? i}>
            <td>{candidates[i]?.name}</td>
            <td className={parts.num}>{trimmed(head.strike.delivered_loft_deg)}</td>
            <td className={parts.num}>{trimmed(head.strike.delivered_bounce_deg)}</td>
            <td>{head.strike.outcome}</td>
            <td className={parts.num}>{plain(inDistance(metres(head.strike.carry_m), units.distance), 1)}</td>
            <td className={parts.num}>{plain(head.strike.leading_edge_mm, 1)}</td>
            <td className={parts.num}>{plain(head.strike.impact_height_mm, 1)}</td>
            <td className={parts.num}>{plain(head.strike.material_g, 1)}</td>
            <td className={parts.num}>{mm(head.window.low_mm)}</td>
            <td className={parts.num}>{head.window.open_ahead ? "open" : mm(head.window.high_mm)}</td>
            <td className={parts.num}>{showPercent(head.inside_share)}</td>
            <td className={parts.num}>{showPercent(head.expected_quality)}</td>
          </tr>
        ))}
      </tbody>
    </CopyTable>
  );
}
