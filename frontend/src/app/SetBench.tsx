import { Button } from "@mantine/core";
import { useMutation, useMutationState, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, type Club, type Fitting, type KeptLine, type Recommendation, unwrap } from "../api/client";
import { useEvidence } from "../evidence/useEvidence";
import { SoleIcon } from "../pictures/SoleIcon/SoleIcon";
import { showPercent, trimmed } from "../units/units";
import { useStore } from "./context";
import frame from "./Frame.module.css";
import classes from "./SetBench.module.css";
import { useKeep } from "./useKeep";

const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });

/** The set as it stands: every club as its own section, loft and bounce large, and one sentence why. */
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
            ? `kept ${clock.format(new Date(server.kept.created_at))} · ${since === 0 ? "unchanged" : `${since} ${since === 1 ? "change" : "changes"} since`}`
            : "nothing kept yet"}
        </Link>
      </header>
      <Making />
      <div className={classes.scroll} aria-busy={saveState === "saving"}>
        {result ? <Clubs result={result} /> : <Problem />}
      </div>
      <footer className={classes.foot}>
        {failure && <p role="alert">{failure.message}</p>}
        <Button
          fullWidth
          size="md"
          disabled={!result || saveState !== "saved"}
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
  const { saveState } = useStore();
  const saving = saveState === "saving";
  const work = useQuery({
    queryKey: ["work"],
    refetchInterval: (query) => (saving || (query.state.data?.ahead_total ?? 0) > 0 ? 500 : 5000),
    staleTime: 0,
    queryFn: () => unwrap(api.GET("/api/engine/work")),
  });
  const stop = useMutation({
    mutationFn: () => unwrap(api.DELETE("/api/engine/work")),
    onSuccess: () => work.refetch(),
  });
  if (!work.data) return null;
  const { done, total, ahead_done, ahead_total } = work.data;
  if (saving && total > 0) {
    return (
      <p className={classes.note} role="status">
        New ground or heads: pass {done} of {total}
      </p>
    );
  }
  if (ahead_total === 0) return null;
  return (
    <p className={classes.making}>
      <span>
        Working ahead: pass {ahead_done} of {ahead_total}
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
      {result.clubs.map((club) => (
        <ClubRow key={club.slot} club={club} levels={result.level_sets} />
      ))}
      {result.clubs.length === 0 && (
        <p className={classes.problem}>No head on the rack or in the bag reaches these lofts.</p>
      )}
      {result.unserved.length > 0 && (
        <p className={classes.note}>
          Nobody serves well: <strong>{shotOf(result, result.unserved[0])}</strong>
          {result.unserved.length > 1 && ` and ${result.unserved.length - 1} more`}.
        </p>
      )}
      {result.notes.map((note) => (
        <p key={note.text} className={classes.note} data-kind={note.kind}>
          {note.text}
        </p>
      ))}
    </>
  );
}

function shotOf(result: Recommendation, key: string | undefined) {
  const scenario = result.scenarios.find((s) => s.key === key);
  return scenario ? `${scenario.shot_name} on ${scenario.ground}` : "";
}

function ClubRow({ club, levels }: { club: Club; levels: number }) {
  const { server } = useStore();
  const kept = server.kept?.clubs[club.slot];
  const pick = club.candidates[0];
  const evidence = useEvidence();
  const share = evidence.data?.shares.find((s) => s.slot === club.slot && s.code === pick?.code)?.share;
  if (!pick) return null;
  const label = server.recommendation?.sets[0]?.clubs[club.slot];
  return (
    <article className={classes.club} aria-label={`${trimmed(club.loft_deg)} degrees`}>
      <SoleIcon outline={pick.outline_mm} width={150} height={50} />
      <p className={classes.figures}>
        <span className={classes.loft}>{trimmed(club.loft_deg)}°</span>
        <span className={classes.bounce}>{trimmed(club.bounce_deg)}° bounce</span>
      </p>
      <p className={classes.sure}>
        <strong data-old={evidence.isPlaceholderData}>{share === undefined ? "…" : showPercent(share)}</strong>
        {evidence.data?.assumed_count ? "of 500, spreads assumed" : "of 500 resamples"}
        {levels > 1 && <span className={classes.level}>at least {levels} sets level</span>}
      </p>
      <p className={classes.duty}>
        {pick.owned ? "owned" : pick.name}, {pick.shape}; {club.duty}
      </p>
      <p className={classes.why}>{club.reason}</p>
      {kept && kept !== label && <p className={classes.changed}>Kept: {kept}</p>}
    </article>
  );
}

/** Edits and strikes since a proposal was kept; other strikes in the place of those are one change at least. */
function changesSince(server: Fitting, kept: KeptLine): number {
  const other = kept.strikes_key !== null && kept.strikes_key !== server.strikes_key ? 1 : 0;
  return server.revision - kept.revision + Math.max(Math.abs(server.strikes - kept.strikes), other);
}
