import { SegmentedControl, TextInput } from "@mantine/core";
import { useEffect, useEffectEvent, useState } from "react";
import type { Strike } from "../../api/client";
import { TABLES } from "../../api/tables";
import { SoleMark } from "../../pictures/SoleMark/SoleMark";
import type { Telling } from "../../strikes/actStore";
import type { StrikeQueue } from "../../strikes/useStrikeQueue";
import classes from "./Strikes.module.css";

interface Props {
  strike: Strike;
  /** Whether another was hit since: it is held here while a note is written on it. */
  earlier?: boolean;
  /** The note is being written, or this strike is done with. */
  onHold?: (held: boolean) => void;
  soleWidth: number;
  hand: "right" | "left";
  queue: StrikeQueue;
}

const nothing = () => {};

/**
 * What the eye adds to the last strike: its divot, the mark on the sole, a note. The one that a note is written on stays
 * until it is left: what is typed would go on as keys of the step.
 */
export function About({ strike, earlier = false, onHold = nothing, soleWidth, hand, queue }: Props) {
  // in whose place it is written: another fitter's may come meanwhile
  const [draft, setDraft] = useState<{ note: string; was: string } | null>(null);
  const keep = () => {
    if (draft && draft.note !== strike.note) queue.tell(strike.id, { note: draft.note }, draft.was);
    setDraft(null);
  };
  // the next strike may come while the note on this one is being written
  const leave = useEffectEvent(keep);
  useEffect(() => () => void leave(), []);
  const which = earlier ? "an earlier strike" : "the last strike";
  const tell = (changes: Telling) => {
    queue.tell(strike.id, changes);
    onHold(false);
  };
  return (
    <section
      className={classes.about}
      aria-label={`About ${which}`}
      // a press between its parts leaves the focus here
      tabIndex={-1}
      onBlur={(event) => !event.currentTarget.contains(event.relatedTarget) && onHold(false)}
    >
      <h2>About {which}</h2>
      {earlier && <p role="status">Another was hit since: it is next, once the note is left.</p>}
      <SegmentedControl
        aria-label={`Divot of ${which}`}
        size="xs"
        value={strike.divot ?? ""}
        data={[{ value: "", label: "divot?" }, ...TABLES.divots.map((value) => ({ value, label: value }))]}
        onChange={(value) => tell({ divot: value === "" ? null : (value as Strike["divot"]) })}
      />
      <SoleMark
        width={soleWidth}
        hand={hand}
        mark={
          strike.mark_back_mm === null || strike.mark_toe_mm === null
            ? null
            : { back: strike.mark_back_mm, toe: strike.mark_toe_mm }
        }
        onMark={(mark_back_mm, mark_toe_mm) => tell({ mark_back_mm, mark_toe_mm })}
      />
      <TextInput
        aria-label={`Note on ${which}`}
        placeholder="a note on it"
        maxLength={TABLES.most.note}
        value={draft?.note ?? strike.note}
        onChange={(event) => setDraft({ note: event.currentTarget.value, was: draft?.was ?? strike.note })}
        onFocus={() => onHold(true)}
        onBlur={keep}
        onKeyDown={(event) => {
          if (event.key !== "Enter") return;
          keep();
          if (earlier) onHold(false);
        }}
      />
    </section>
  );
}
