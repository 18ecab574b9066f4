import { SegmentedControl, TextInput } from "@mantine/core";
import { useEffect, useEffectEvent, useState } from "react";
import type { Strike } from "../../api/client";
import { TABLES } from "../../api/tables";
import { SoleMark } from "../../pictures/SoleMark/SoleMark";
import type { StrikeQueue } from "../../strikes/useStrikeQueue";
import classes from "./Strikes.module.css";

interface Props {
  strike: Strike;
  soleWidth: number;
  hand: "right" | "left";
  queue: StrikeQueue;
}

/** What the eye adds to the last strike: its divot, the mark on the sole, a note. */
export function About({ strike, soleWidth, hand, queue }: Props) {
  // in whose place it is written: another fitter's may come meanwhile
  const [draft, setDraft] = useState<{ note: string; was: string } | null>(null);
  const keep = () => {
    if (draft && draft.note !== strike.note) queue.tell(strike.id, { note: draft.note }, draft.was);
    setDraft(null);
  };
  // the next strike may come while the note on this one is being written
  const leave = useEffectEvent(keep);
  useEffect(() => () => void leave(), []);
  return (
    <section className={classes.about} aria-label="About the last strike">
      <h2>About the last strike</h2>
      <SegmentedControl
        aria-label="Divot of the last strike"
        size="xs"
        value={strike.divot ?? ""}
        data={[{ value: "", label: "divot?" }, ...TABLES.divots.map((value) => ({ value, label: value }))]}
        onChange={(value) => queue.tell(strike.id, { divot: value === "" ? null : (value as Strike["divot"]) })}
      />
      <SoleMark
        width={soleWidth}
        hand={hand}
        mark={
          strike.mark_back_mm === null || strike.mark_toe_mm === null
            ? null
            : { back: strike.mark_back_mm, toe: strike.mark_toe_mm }
        }
        onMark={(mark_back_mm, mark_toe_mm) => queue.tell(strike.id, { mark_back_mm, mark_toe_mm })}
      />
      <TextInput
        aria-label="Note on the last strike"
        placeholder="a note on it"
        maxLength={TABLES.most.note}
        value={draft?.note ?? strike.note}
        onChange={(event) => setDraft({ note: event.currentTarget.value, was: draft?.was ?? strike.note })}
        onBlur={keep}
        onKeyDown={(event) => event.key === "Enter" && keep()}
      />
    </section>
  );
}
