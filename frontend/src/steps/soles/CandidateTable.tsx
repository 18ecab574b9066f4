import { Button, VisuallyHidden } from "@mantine/core";
import type { Candidate, Club } from "../../api/client";
import { useStore } from "../../app/context";
import { SoleIcon } from "../../pictures/SoleIcon/SoleIcon";
import { strokes } from "../../pictures/Verdict/Verdict";
import { plain, trimmed } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Soles.module.css";

/** Heads that could stand in this place, best set first, each with its sum in a sentence. */
export function CandidateTable({ club }: { club: Club }) {
  const { draft, edit } = useStore();
  const pin = (candidate: Candidate | null) => {
    const others = draft.choices.pinned.filter((p) => Math.abs(p.loft_deg - club.loft_deg) > 0.01);
    const chosen = candidate && { loft_deg: candidate.head.loft_deg, code: candidate.code };
    edit("choices", { ...draft.choices, pinned: chosen ? [...others, chosen] : others });
  };
  return (
    <CopyTable caption={`Heads in the place of ${trimmed(club.loft_deg)}°, each at its best bend`}>
      <thead>
        <tr>
          <th>Head</th>
          <th>Sole</th>
          <th className={parts.num}>Bounce °</th>
          <th className={parts.num}>Loft °</th>
          <th className={parts.num}>Bend °</th>
          <th className={parts.num}>Width mm</th>
          <th className={parts.num}>Edge mm</th>
          <th className={parts.num}>Behind, a round</th>
          <th>Why</th>
          <th>
            <VisuallyHidden>Take</VisuallyHidden>
          </th>
        </tr>
      </thead>
      <tbody>
        {club.candidates.map((c, i) => (
          <tr key={c.code} data-on={i === 0}>
            <td>
              <strong>{c.name}</strong>
              {c.owned && <span className={parts.unit}> owned</span>}
              <SoleIcon outline={c.outline_mm} width={84} height={26} />
            </td>
            <td>{c.shape}</td>
            <td className={parts.num}>{trimmed(c.head.bounce_deg)}</td>
            <td className={parts.num}>{trimmed(c.head.loft_deg)}</td>
            <td className={parts.num}>
              {c.bend_deg === 0 ? "none" : `${c.bend_deg > 0 ? "+" : ""}${plain(c.bend_deg, 1)}`}
            </td>
            <td className={parts.num}>{trimmed(c.head.sole_width_mm ?? 20)}</td>
            <td className={parts.num}>{plain(c.edge_height_mm, 1)}</td>
            <td className={parts.num}>{i === 0 ? "" : strokes(c.behind)}</td>
            <td className={classes.why}>{c.reason}</td>
            <td>
              {i === 0 ? (
                club.pinned && (
                  <Button variant="default" size="compact-xs" onClick={() => pin(null)}>
                    Let it go
                  </Button>
                )
              ) : (
                <Button variant="default" size="compact-xs" onClick={() => pin(c)}>
                  Take it
                </Button>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </CopyTable>
  );
}
