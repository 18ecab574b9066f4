import { Button } from "@mantine/core";
import { useMutation, useMutationState, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, type Club, type Fitting, type KeptLine, type Recommendation, type Schemas, unwrap } from "../api/client";
import { useEvidence, useSteps } from "../evidence/useEvidence";
import { SoleIcon } from "../pictures/SoleIcon/SoleIcon";
import { strokes } from "../pictures/Verdict/Verdict";
import { showTimeOrDay } from "../units/days";
import { trimmed } from "../units/units";
import { useStore } from "./context";
import frame from "./Frame.module.css";
import classes from "./SetBench.module.css";
import { ToCome } from "./ToCome";
import { useKeep } from "./useKeep";

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
  const since = server.kept ? changesSince(server, server.kept) : null;
  return (
    <aside className={`${frame.bench} ${classes.bench}`} data-open={open} aria-label="The set">
      <header className={classes.head}>
        <h2>The set</h2>
        <Link to={`/fittings/${server.id}/kept`}>
          {server.kept
            ? `kept ${showTimeOrDay(server.kept.created_at)} · ${since === 0 ? "unchanged" : `${since} ${since === 1 ? "change" : "changes"} since`}`
            : "nothing kept yet"}
        </Link>
      </header>
      <Making />
      <section
        className={classes.scroll}
        aria-busy={saveState === "saving"}
        aria-label="The set, club by club"
        tabIndex={0}
      >
        {result ? <Clubs result={result} /> : server.to_come ? <ToCome /> : <Problem />}
      </section>
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

/** A count while the engine makes families for heads or ground it has not met, and a way to stop what is made ahead. */
function Making() {
  const { saveState, server } = useStore();
  const saving = saveState === "saving" || server.to_come;
  const work = useQuery({
    queryKey: ["work"],
    refetchInterval: (query) => {
      const now = query.state.data;
      return saving || (now && now.ahead_total + now.laws_total > 0) ? 500 : 5000;
    },
    staleTime: 0,
    queryFn: () => unwrap(api.GET("/api/engine/work")),
  });
  const stop = useMutation({
    mutationFn: () => unwrap(api.DELETE("/api/engine/work")),
    onSuccess: () => work.refetch(),
  });
  if (!work.data) return null;
  const { done, total, ahead_done, ahead_total, laws_done, laws_total } = work.data;
  if (saving && total > 0) {
    return (
      <p className={classes.note} role="status">
        New ground or heads: {done} of {total} worked out
      </p>
    );
  }
  if (laws_total > 0) {
    return (
      <p className={classes.note} role="status">
        How sure: {laws_done} of {laws_total} trials of the ground model
      </p>
    );
  }
  if (ahead_total === 0) return null;
  return (
    <p className={classes.making}>
      <span>
        Getting ready for other heads: {ahead_done} of {ahead_total}
      </span>
      <Button size="compact-sm" variant="default" disabled={stop.isPending} onClick={() => stop.mutate()}>
        Stop
      </Button>
    </p>
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

/** What the shown set saves over today's bag, and how sure that is. */
function Won({ result }: { result: Recommendation }) {
  const evidence = useEvidence();
  const steps = useSteps(result);
  const step = steps[result.taken_step];
  if (!step) return null;
  const laws = evidence.isPlaceholderData ? 0 : (evidence.data?.law_draws ?? 0);
  const gain = step.gain_strokes_round;
  return (
    <div className={classes.won} data-old={!result.whole_rack}>
      <p className={classes.saved}>
        <strong>{strokes(Math.abs(gain))}</strong> strokes a round {gain < 0 ? "more than today’s bag" : "saved"}
      </p>
      <p className={classes.why}>{rangeOf(step, result, laws)}</p>
    </div>
  );
}

function rangeOf(step: Schemas["StepOut"], result: Recommendation, laws: number): string {
  if (!result.whole_rack) return "Among the clubs near the last choice; the whole rack follows.";
  if (step.kind === "bag") return result.verdict;
  if (step.low === null || step.high === null || step.better_share === null) return "";
  const where = step.better_share > 0.995 ? "more than 99" : (100 * step.better_share).toFixed(0);
  return `8 of 10 between ${strokes(step.low)} and ${strokes(step.high)}; better than today’s bag in ${where} of 100 trials${
    laws > 0 ? "" : ", the ground model itself not yet tried"
  }`;
}

/** The clubs of today's bag, when they are what is shown. */
function Bag({ result }: { result: Recommendation }) {
  const clubs = result.steps[result.taken_step]?.clubs ?? [];
  if (clubs.length === 0)
    return <p className={classes.problem}>No head on the rack or in the bag reaches these lofts.</p>;
  return clubs.map((club) => (
    <article key={club.code} className={classes.club} aria-label={`${trimmed(club.loft_deg)} degrees`}>
      <span className={classes.icon}>
        <SoleIcon outline={club.outline_mm} width={96} height={38} />
      </span>
      <p className={classes.figures}>
        <span className={classes.loft}>{trimmed(club.loft_deg)}°</span>
        <span className={classes.bounce}>{trimmed(club.bounce_deg)}° bounce</span>
      </p>
      <p className={classes.duty}>{club.name} stays</p>
      <p className={classes.why}>{result.bag.find((verdict) => verdict.code === club.code)?.why}</p>
    </article>
  ));
}

/** A club as it is built, in a line: for the comparison with what was kept. */
export const labelOf = (club: { name: string; loft_deg: number; bounce_deg: number }) =>
  `${club.name}: ${trimmed(club.loft_deg)}°, ${trimmed(club.bounce_deg)}° bounce`;

function ClubRow({ club, doubt }: { club: Club; doubt: Recommendation["doubt"] }) {
  const { server } = useStore();
  const kept = server.kept?.clubs[club.slot];
  const evidence = useEvidence();
  const drawn = evidence.isPlaceholderData ? undefined : evidence.data;
  const share = drawn?.shares.find((s) => s.slot === club.slot && s.code === club.code)?.share ?? club.survives;
  const times = Math.round((share ?? 0) * (doubt?.draws ?? 0));
  const outline = club.candidates.find((c) => c.code === club.code)?.outline_mm ?? [];
  const bend =
    club.bend_deg === 0 ? "" : `, bent ${trimmed(Math.abs(club.bend_deg))}° ${club.bend_deg > 0 ? "weak" : "strong"}`;
  return (
    <article className={classes.club} aria-label={`${trimmed(club.loft_deg)} degrees`}>
      <span className={classes.icon}>
        <SoleIcon outline={outline} width={96} height={38} />
      </span>
      <p className={classes.figures}>
        <span className={classes.loft}>{trimmed(club.loft_deg)}°</span>
        <span className={classes.bounce}>{trimmed(club.bounce_deg)}° bounce</span>
      </p>
      <p className={classes.duty}>
        {club.owned ? (
          <>
            <strong>{club.name}</strong>
            {bend || " stays"}
          </>
        ) : (
          <>
            <strong>{club.name}</strong>
            {bend}
            {club.replaces ? ` for ${club.replaces}` : ", one more"}
          </>
        )}
      </p>
      <p className={classes.why}>{club.reason}</p>
      {share !== null && doubt && (
        <p className={classes.why}>
          Among the best in {times === doubt.draws ? "all" : `${times} of`} {doubt.draws} trials
          {doubt.assumed_count && ", spreads assumed"}
        </p>
      )}
      {club.proofs.map((proof) => (
        <p key={proof.words} className={classes.why} data-standing={proof.standing}>
          {proof.words}
        </p>
      ))}
      <p className={classes.brings}>
        <strong>{strokes(club.brings_strokes_round)}</strong> brings
      </p>
      {kept && kept !== labelOf(club) && <p className={classes.changed}>Kept: {kept}</p>}
    </article>
  );
}

/** Edits and strikes since a proposal was kept; other strikes in the place of those are one change at least. */
function changesSince(server: Fitting, kept: KeptLine): number {
  const other = kept.strikes_key !== null && kept.strikes_key !== server.strikes_key ? 1 : 0;
  return server.revision - kept.revision + Math.max(Math.abs(server.strikes - kept.strikes), other);
}
