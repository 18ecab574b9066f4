import { VisuallyHidden } from "@mantine/core";
import { useState } from "react";
import type { Club, Recommendation } from "../../api/client";
import { TABLES } from "../../api/tables";
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

const PIN_WORDS = new Map(TABLES.pins.map(({ key, name }) => [key, name]));

/** Situations as rows: strokes a shot with the chosen head, the owned one and the best on the rack, with the opening taken. */
export function SituationTable({ club, result, chosen, onChoose }: Props) {
  const [all, setAll] = useState(false);
  const scenarios = new Map(result.scenarios.map((s) => [s.key, s]));
  const every = club.situations
    .flatMap((row) => {
      const scenario = scenarios.get(row.scenario);
      return scenario ? [{ row, scenario }] : [];
    })
    .sort((a, b) => b.scenario.share - a.scenario.share);
  const mine = every.filter(({ row }) => row.serves.length > 0);
  const rows = all || mine.length === 0 ? every : mine;
  return (
    <>
      <CopyTable caption={all ? "Every situation, strokes a shot" : "Where it serves, strokes a shot"}>
        <thead>
          <tr>
            <th>Shot</th>
            <th>Ground</th>
            <th className={parts.num}>Share</th>
            <th className={parts.num}>{club.name}</th>
            <th className={parts.num}>{club.replaces && club.replaces !== club.name ? club.replaces : "Owned"}</th>
            <th className={parts.num}>Best of all</th>
            <th>Serves</th>
            <th className={parts.num}>Open °</th>
            <th className={parts.num}>Loft °</th>
            <th className={parts.num}>Bounce °</th>
            <th>Usual</th>
            <th>
              <VisuallyHidden>Desk</VisuallyHidden>
            </th>
            <th className={parts.num}>Edge mm</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ row, scenario: s }) => (
            <tr key={s.key} data-on={s.key === chosen}>
              <td>
                <button type="button" className={classes.shot} onClick={() => onChoose(s.key)}>
                  {s.shot_name}
                </button>
              </td>
              <td>{s.ground}</td>
              <td className={`${parts.num} ${classes.nowrap}`}>{showPercent(s.share, 1)}</td>
              <td className={parts.num}>
                <strong>{row.strokes.toFixed(2)}</strong>
              </td>
              <td className={parts.num}>{row.owned_strokes === null ? "" : row.owned_strokes.toFixed(2)}</td>
              <td className={`${parts.num} ${classes.nowrap}`}>
                {row.best_strokes.toFixed(2)} <span className={parts.unit}>{row.best_name}</span>
              </td>
              <td>
                {row.serves.length === PIN_WORDS.size
                  ? "every pin"
                  : row.serves.map((pin) => PIN_WORDS.get(pin)).join(", ")}
              </td>
              <td className={parts.num}>{trimmed(row.opening_deg)}</td>
              <td className={parts.num}>{plain(row.loft_deg, 1)}</td>
              <td className={parts.num}>{plain(row.bounce_deg, 1)}</td>
              <td className={classes.nowrap}>
                {plain(s.wanted_bounce_low_deg, 1)} to {plain(s.wanted_bounce_high_deg, 1)}
              </td>
              <td>
                <BounceBand value={row.bounce_deg} low={s.wanted_bounce_low_deg} high={s.wanted_bounce_high_deg} />
              </td>
              <td className={parts.num}>{plain(row.leading_edge_height_mm, 1)}</td>
            </tr>
          ))}
        </tbody>
      </CopyTable>
      {mine.length > 0 && (
        <p className={classes.more}>
          <button type="button" className={parts.quietButton} aria-pressed={all} onClick={() => setAll(!all)}>
            {all ? "Only where it serves" : `All ${every.length} situations`}
          </button>
        </p>
      )}
    </>
  );
}
