import { Button } from "@mantine/core";
import { useMutationState } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Fitting, KeptLine, Recommendation } from "../api/client";
import { showTimeOrDay } from "../units/days";
import { counted } from "../units/units";
import { ClubRow } from "./ClubRow";
import { useStore } from "./context";
import frame from "./Frame.module.css";
import { Making } from "./Making";
import classes from "./SetBench.module.css";
import { ToCome } from "./ToCome";
import { useKeep } from "./useKeep";
import { Bag, Won } from "./Won";

/** The set as it stands: what it saves a round, every club as its own section, what it brings, and one sentence why. */
export function SetBench({ open }: { open: boolean }) {
  const { server, saveState } = useStore();
  const keep = useKeep();
  const failures = useMutationState({
    filters: { mutationKey: ["keep", server.id] },
    select: (mutation) => mutation.state.error,
  });
  const failure = failures.at(-1);
  const result = server.recommendation;
  const since = server.kept ? changesSince(server, server.kept) : 0;
  return (
    <aside className={`${frame.bench} ${classes.bench}`} data-open={open} aria-label="The set">
      <header className={classes.head}>
        <h2>The set</h2>
        <Link to={`/fittings/${server.id}/kept`}>
          {server.kept
            ? `kept ${showTimeOrDay(server.kept.created_at)} · ${sinceWords(since, server.kept_is_shown)}`
            : "nothing kept yet"}
        </Link>
      </header>
      <section
        className={classes.scroll}
        aria-busy={saveState === "saving"}
        aria-label="The set, club by club"
        tabIndex={0}
      >
        {result ? <Clubs result={result} /> : server.to_come ? <ToCome /> : <Problem />}
      </section>
      {/* at the foot: it comes and goes, and no club moves with it */}
      <Making />
      <footer className={classes.foot}>
        {failure && <p role="alert">{failure.message}</p>}
        <Button
          fullWidth
          size="md"
          disabled={!result?.whole_rack || saveState !== "saved"}
          loading={keep.isPending}
          onClick={() => keep.mutate()}
        >
          Keep this proposal
        </Button>
      </footer>
    </aside>
  );
}

function Problem() {
  const { server } = useStore();
  return (
    <div className={classes.problem} role="alert">
      <strong>No set can be proposed yet.</strong>
      <ul>
        {server.problem.map((fault) => (
          <li key={fault.field + fault.message}>{fault.message}</li>
        ))}
      </ul>
    </div>
  );
}

function Clubs({ result }: { result: Recommendation }) {
  return (
    <>
      <Won result={result} />
      {result.clubs.map((club) => (
        <ClubRow key={club.slot} club={club} doubt={result.doubt} />
      ))}
      {result.clubs.length === 0 && <Bag result={result} />}
      {result.notes.map((note) => (
        <p key={note.text} className={classes.note} data-kind={note.kind}>
          {note.text}
        </p>
      ))}
    </>
  );
}

/** With nothing changed in the fitting the set may be another one: the rack is the studio's. */
function sinceWords(since: number, shown: boolean): string {
  if (since === 0) return shown ? "unchanged" : "another set now";
  return `${counted(since, "change")} since`;
}

/** Edits and strikes since a proposal was kept; other strikes in the place of those are one change at least. */
function changesSince(server: Fitting, kept: KeptLine): number {
  const other = kept.strikes_key !== null && kept.strikes_key !== server.strikes_key ? 1 : 0;
  return server.revision - kept.revision + Math.max(Math.abs(server.strikes - kept.strikes), other);
}
