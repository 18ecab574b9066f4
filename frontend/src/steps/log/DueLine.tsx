import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { useRemembered } from "../../app/useRemembered";
import { dayIn, showDay, today } from "../../units/days";
import parts from "../parts/parts.module.css";
import classes from "./Log.module.css";

type Due = Schemas["DueOut"];

type Key = Schemas["LookedAtDocument"]["key"];

/** What falls due within a month can be looked at now. */
const soon = () => dayIn(30);

/** One thing that is due, looked at or put off. */
export function DueLine({ due }: { due: Due }) {
  const { draft, edit } = useStore();
  const [until, setUntil] = useState(due.on);
  const [reason, setReason] = useRemembered(`put-off-${due.key}`, "");
  const [open, setOpen] = useState(reason !== "");
  const others = draft.after.snoozes.filter((one) => one.key !== due.key);
  const put = (snoozes: typeof draft.after.snoozes) => edit("after", { ...draft.after, snoozes });
  return (
    <li data-late={due.late}>
      <strong>{showDay(due.on)}</strong>
      <span>
        {due.words}
        <small> {due.why}</small>
        {due.put_off && `, put off: ${due.put_off}`}
        {due.late && <b className={classes.late}> due</b>}
      </span>
      <span className={classes.buttons}>
        {due.on <= soon() && (
          <Button
            aria-label={`Looked at today: ${due.words}`}
            size="xs"
            onClick={() =>
              edit("after", {
                ...draft.after,
                looked_at: [
                  ...draft.after.looked_at.filter((one) => one.key !== due.key),
                  { key: due.key as Key, on: today() },
                ],
              })
            }
          >
            Looked at today
          </Button>
        )}
        {due.put_off ? (
          <Button aria-label={`Not put off: ${due.words}`} size="xs" variant="default" onClick={() => put(others)}>
            Not put off
          </Button>
        ) : (
          <Button
            aria-label={`Put off: ${due.words}`}
            size="xs"
            variant="default"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            Put off
          </Button>
        )}
      </span>
      {open && !due.put_off && (
        <form
          className={parts.fields}
          onSubmit={(event) => {
            event.preventDefault();
            if (reason.trim() === "") return;
            put([...others, { key: due.key as Key, until, reason: reason.trim() }]);
            setOpen(false);
            setReason("");
          }}
        >
          <TextInput label="Until" type="date" value={until} onChange={(e) => setUntil(e.currentTarget.value)} />
          <TextInput
            label="Why"
            required
            withAsterisk={false}
            maxLength={TABLES.most.why}
            value={reason}
            onChange={(e) => setReason(e.currentTarget.value)}
          />
          <Button type="submit" mt={21} disabled={reason.trim() === "" || until <= due.on}>
            Put it off
          </Button>
        </form>
      )}
    </li>
  );
}
