import { Button } from "@mantine/core";
import type { Club } from "../../api/client";
import { useStore } from "../../app/context";
import { SoleIcon } from "../../pictures/SoleIcon/SoleIcon";
import { plain, trimmed } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Soles.module.css";

/** Heads that reach this loft, best set first, each with its sum in a sentence. */
export function CandidateTable({ club }: { club: Club }) {
  const { draft, edit } = useStore();
  const pin = (code: string | null) => {
    const others = draft.choices.pinned.filter((p) => Math.abs(p.loft_deg - club.loft_deg) > 0.01);
    edit("choices", { ...draft.choices, pinned: code ? [...others, { loft_deg: club.loft_deg, code }] : others });
  };
  return (
    <CopyTable caption={`Heads for ${trimmed(club.loft_deg)}°`}>
      <thead>
        <tr>
          <th>Head</th>
          <th>Sole</th>
          <th className={parts.num}>Bounce °</th>
          <th className={parts.num}>Bend °</th>
          <th className={parts.num}>Width mm</th>
          <th className={parts.num}>Edge mm</th>
          <th className={parts.num}>Behind</th>
          <th>Why</th>
          <th />
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
            <td className={parts.num}>
              {c.bend_deg === 0 ? "none" : `${c.bend_deg > 0 ? "+" : ""}${plain(c.bend_deg, 1)}`}
            </td>
            <td className={parts.num}>{trimmed(c.head.sole_width_mm ?? 20)}</td>
            <td className={parts.num}>{plain(c.edge_height_mm, 1)}</td>
            <td className={parts.num}>{c.behind < 0.0005 ? "" : plain(100 * c.behind, 1)}</td>
            <td className={classes.why}>{c.reason}</td>
            <td>
              {i === 0 ? (
                club.pinned && (
                  <Button variant="default" size="compact-xs" onClick={() => pin(null)}>
                    Let it go
                  </Button>
                )
              ) : (
                <Button variant="default" size="compact-xs" onClick={() => pin(c.code)}>
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
