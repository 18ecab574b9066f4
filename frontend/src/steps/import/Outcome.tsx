import { Button, Checkbox, Progress } from "@mantine/core";
import { useState } from "react";
import { TABLES } from "../../api/tables";
import { count, counted } from "../../units/units";
import { KeepMapping } from "../parts/KeepMapping";
import classes from "./Import.module.css";
import type { ImportRun } from "./mapping";
import type { useImport } from "./useImport";

interface Props {
  work: ReturnType<typeof useImport>;
  run: ImportRun;
  /** What is still missing of the mapping, in words. */
  missing: string | null;
  question: string | null;
}

const STAGES: Record<string, string> = { reading: "Reading rows", checking: "Checking rows", taking: "Taking strikes" };

/** The foot of the page: check all rows, then take them, all or none; how far it is; what came of it. */
export function Outcome({ work, run, missing, question }: Props) {
  const [leaveOut, setLeaveOut] = useState(false);
  const [others, setOthers] = useState(false);
  const [keep, setKeep] = useState(true);
  const [name, setName] = useState(run.name.replace(/\.[a-z]+$/i, "").slice(0, TABLES.most.mapping_name));
  const { counts } = run;
  const start = (take: boolean) =>
    work.start.mutate({
      take,
      leave_out_wrong: leaveOut,
      other_strikes: others,
      keep_as: take && keep && name.trim() ? name.trim() : null,
    });
  const busy = run.state === "running" || work.start.isPending;
  const over = run.state === "taken" || run.state === "withdrawn";
  const coming = counts ? counts.ready - (others ? 0 : counts.known) : 0;
  return (
    <section className={classes.outcome} aria-label="Outcome">
      {busy && (
        <div className={classes.progress}>
          <span role="status">
            {STAGES[run.stage] ?? "Starting"}
            {run.done > 0 && `: ${count(run.done)}${run.total > 0 ? ` of ${count(run.total)}` : ""}`}
          </span>
          <Progress value={run.total > 0 ? (100 * run.done) / run.total : 0} aria-label="Progress" />
          <Button size="xs" variant="default" onClick={() => work.stop.mutate()} loading={work.stop.isPending}>
            Stop
          </Button>
        </div>
      )}
      {!busy && run.words && (
        <p role="alert" className={classes.failure}>
          {run.words}
        </p>
      )}
      {work.problem && (
        <p role="alert" className={classes.failure}>
          {work.problem}
        </p>
      )}
      {!busy && counts && !over && (
        <p className={classes.counts} role="status">
          <strong>{counted(coming, "new strike")}</strong> of {counted(counts.rows, "row")}
          {counts.known > 0 && `; ${count(counts.known)} stand here already`}
          {counts.left_out > 0 && `; ${count(counts.left_out)} left out as you said`}
          {counts.wrong > 0 && (
            <>
              ; <b>{count(counts.wrong)} wrong</b>
            </>
          )}
          .
        </p>
      )}
      {!busy && !over && run.wrong.length > 0 && (
        <>
          <ul className={classes.wrong} aria-label="Wrong rows">
            {run.wrong.slice(0, 12).map((w) => (
              <li key={`${w.row} ${w.column} ${w.reason}`}>
                row {w.row}
                {w.column && `, ${w.column}`}
                {w.value && `, “${w.value}”`}: {w.reason}
              </li>
            ))}
          </ul>
          <div className={classes.options}>
            <a href={work.wrongAt} download>
              Save the list of wrong rows
            </a>
            <Checkbox
              label={`Leave ${rows(counts?.wrong ?? 0)} out`}
              checked={leaveOut}
              onChange={(event) => setLeaveOut(event.currentTarget.checked)}
            />
          </div>
        </>
      )}
      {!busy && !over && (counts?.known ?? 0) > 0 && (
        <Checkbox
          className={classes.others}
          label="Rows like those of an earlier file are other strikes: take them too"
          checked={others}
          onChange={(event) => setOthers(event.currentTarget.checked)}
        />
      )}
      {question && !over && (
        <p role="alert" className={classes.failure}>
          {question} If so, change the unit of the carry column above.
        </p>
      )}
      {!over && (
        <div className={classes.acts}>
          <Button variant="default" disabled={missing !== null || busy} onClick={() => start(false)}>
            Check all rows
          </Button>
          <Button
            disabled={missing !== null || busy || coming === 0 || ((counts?.wrong ?? 0) > 0 && !leaveOut)}
            onClick={() => start(true)}
          >
            {counts ? `Take ${counted(coming, "strike")}` : "Take strikes"}
          </Button>
          {missing && <span className={classes.missing}>{missing}</span>}
          <KeepMapping keep={keep} name={name} onKeep={setKeep} onName={setName} />
        </div>
      )}
      {over && (
        <div className={classes.acts}>
          <p className={classes.counts} role="status">
            {run.state === "taken" ? (
              <>
                <strong>{counted(counts?.taken ?? 0, "strike")}</strong> taken from {run.name}
                {(counts?.known ?? 0) > 0 && `; ${count(counts?.known ?? 0)} stood here already`}
                {(counts?.wrong ?? 0) > 0 && `; ${rows(counts?.wrong ?? 0)} left out`}.
              </>
            ) : (
              "Taken back: its strikes are gone from this fitting."
            )}
          </p>
          {run.state === "taken" && (counts?.taken ?? 0) > 0 && (
            <Button variant="default" onClick={() => work.withdraw.mutate()} loading={work.withdraw.isPending}>
              Take it back
            </Button>
          )}
        </div>
      )}
    </section>
  );
}

const rows = (wrong: number) => (wrong === 1 ? "the wrong row" : `the ${count(wrong)} wrong rows`);
