import { Button } from "@mantine/core";
import type { Recommendation } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useFault, useStore } from "../../app/context";
import { trimmed } from "../../units/units";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import classes from "./Lofts.module.css";

const { most_wedges, most_loft_deg } = TABLES.ladder;
/** How far a loft that is added stands from the last, until it is typed. */
const STEP_DEG = 4;

/** A ladder set by hand, scored beside the proposed ones. */
export function LadderEditor({ lofts }: { lofts: Recommendation["lofts"] }) {
  const { draft, edit } = useStore();
  const fault = useFault("choices.ladder_deg");
  const typed = draft.choices.ladder_deg;
  const shown = typed ?? lofts.chosen.lofts_deg;
  const last = shown.at(-1) ?? most_loft_deg;
  const set = (ladder_deg: number[] | null) => edit("choices", { ...draft.choices, ladder_deg });
  return (
    <section className={classes.editor} aria-label="Ladder by hand">
      <div className={parts.fields}>
        {shown.map((loft, i) => (
          <NumberField
            key={i}
            label={`Loft ${i + 1}`}
            unit="°"
            width={92}
            path={`choices.ladder_deg.${i}`}
            value={loft}
            onChange={(v) => v !== null && set(shown.map((l, j) => (j === i ? v : l)))}
          />
        ))}
        <div className={classes.editorButtons}>
          <Button
            variant="default"
            size="xs"
            disabled={shown.length >= most_wedges || last > most_loft_deg - STEP_DEG}
            onClick={() => set([...shown, last + STEP_DEG])}
          >
            Add a loft
          </Button>
          <Button variant="default" size="xs" disabled={shown.length <= 1} onClick={() => set(shown.slice(0, -1))}>
            Drop the last
          </Button>
          <Button variant="default" size="xs" disabled={typed === null} onClick={() => set(null)}>
            Back to the proposal
          </Button>
        </div>
      </div>
      {fault && (
        <p role="alert" className={parts.error}>
          {fault.message}
        </p>
      )}
      <p className={classes.score}>
        {lofts.typed ? "By hand" : "As proposed"}, cheapest way to it: {lofts.chosen.changes.join("; ")}
        {lofts.chosen.left_out.length > 0 && `; leave out ${lofts.chosen.left_out.join(", ")}`}. {lofts.chosen.gives_up}{" "}
        The shot mix can use up to {trimmed(lofts.wanted_top_deg)}°.
      </p>
    </section>
  );
}
