import { Button, VisuallyHidden } from "@mantine/core";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { exactly } from "../../api/answerKey";
import { api, unwrap } from "../../api/client";
import { useStore } from "../../app/context";
import { isAtRest } from "../../app/useFitting";
import { showPercent, trimmed } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Lofts.module.css";

/** Cover against cost: the ladders that none beats in both, cheapest first; each can be taken. */
export function Front() {
  const { server, draft, edit, saveState } = useStore();
  const query = useQuery({
    ...exactly("ladders", server),
    enabled: isAtRest(saveState) && server.recommendation !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/fittings/{fitting_id}/ladders", { params: { path: { fitting_id: server.id } }, signal })),
  });
  if (!query.data) return null;
  return (
    <CopyTable caption="Cover against cost: no ladder beats these in both">
      <thead>
        <tr>
          <th>Lofts</th>
          <th className={parts.num}>Cost</th>
          <th className={parts.num}>Of faced distances left open</th>
          <th>
            <VisuallyHidden>Mark</VisuallyHidden>
          </th>
          <th>Cheapest way to it</th>
          <th>
            <VisuallyHidden>Take</VisuallyHidden>
          </th>
        </tr>
      </thead>
      <tbody>
        {query.data.front.map((ladder) => (
          <tr key={ladder.lofts_deg.join()} data-on={ladder.chosen}>
            <td>{ladder.lofts_deg.map((l) => `${trimmed(l)}°`).join("  ")}</td>
            <td className={parts.num}>{ladder.cost.toFixed(2)}</td>
            <td className={parts.num}>{showPercent(ladder.uncovered_share)}</td>
            <td>
              <span className={classes.open} style={{ width: 120 * ladder.uncovered_share }} />
            </td>
            <td>
              {ladder.changes.join("; ")}
              {ladder.left_out.length > 0 && `; leave out ${ladder.left_out.join(", ")}`}
            </td>
            <td>
              <Button
                size="compact-sm"
                variant="default"
                disabled={ladder.chosen}
                onClick={() => edit("choices", { ...draft.choices, ladder_deg: ladder.lofts_deg })}
              >
                Take
              </Button>
            </td>
          </tr>
        ))}
      </tbody>
    </CopyTable>
  );
}
