import type { Club, Recommendation } from "../../api/client";
import { BounceBand } from "../../pictures/BounceBand/BounceBand";
import { plain, showPercent, trimmed } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Soles.module.css";

interface Props {
  club: Club;
  result: Recommendation;
  chosen: string;
  onChoose: (key: string) => void;
}

/** Delivered loft and bounce of the chosen head for every shot on every ground, against what the ground asks for. */
export function DeliveredTable({ club, result, chosen, onChoose }: Props) {
  const rows = result.scenarios
    .map((scenario, i) => ({ scenario, delivered: club.delivered[i] }))
    .sort((a, b) => b.scenario.share - a.scenario.share);
  return (
    <CopyTable caption="Shot by shot">
      <thead>
        <tr>
          <th>Shot</th>
          <th>Ground</th>
          <th className={parts.num}>Share</th>
          <th className={parts.num}>Open, lean °</th>
          <th className={parts.num}>Loft °</th>
          <th className={parts.num}>Bounce °</th>
          <th>Asked</th>
          <th />
          <th className={parts.num}>Edge mm</th>
          <th className={parts.num}>Value</th>
          <th>{partNames(club)}</th>
          <th>Served by</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ scenario: s, delivered: d }) =>
          d ? (
            <tr key={s.key} data-on={s.key === chosen}>
              <td>
                <button type="button" className={classes.shot} onClick={() => onChoose(s.key)}>
                  {s.shot_name}
                </button>
              </td>
              <td>{s.ground}</td>
              <td className={`${parts.num} ${classes.nowrap}`}>{showPercent(s.share, 1)}</td>
              <td className={parts.num}>
                {trimmed(s.opening_deg)}, {trimmed(s.lean_deg)}
              </td>
              <td className={parts.num}>{plain(d.loft_deg, 1)}</td>
              <td className={parts.num}>{plain(d.bounce_deg, 1)}</td>
              <td className={classes.nowrap}>
                {plain(s.wanted_bounce_low_deg, 1)} to {plain(s.wanted_bounce_high_deg, 1)}
              </td>
              <td>
                <BounceBand value={d.bounce_deg} low={s.wanted_bounce_low_deg} high={s.wanted_bounce_high_deg} />
              </td>
              <td className={parts.num}>{plain(d.leading_edge_height_mm, 1)}</td>
              <td className={parts.num}>{plain(100 * d.value)}</td>
              <td className={classes.nowrap}>
                {Object.values(d.parts)
                  .map((part) => plain(100 * part))
                  .join(" × ")}
              </td>
              <td>{server(s.served_by, s.kind, result)}</td>
            </tr>
          ) : null,
        )}
      </tbody>
    </CopyTable>
  );
}

/** The parts whose product is the value, in the order of the column. */
function partNames(club: Club) {
  return Object.keys(club.delivered[0]?.parts ?? {})
    .map((name) => name.replaceAll("_", " "))
    .join(" × ");
}

function server(slot: number, kind: string, result: Recommendation) {
  if (kind === "full") return "each";
  return slot < 0 ? "pitching w." : `${trimmed(result.clubs[slot]?.loft_deg ?? 0)}°`;
}
