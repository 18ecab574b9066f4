import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, Navigate, useParams } from "react-router";
import { onUnsure } from "../api/afterLoss";
import { againAfter } from "../api/again";
import { api, type Fitting, NO_ANSWER, RequestError, unwrap } from "../api/client";
import { LiveProvider } from "../devices/live";
import { useStanding } from "../session/session";
import { StrikeQueueProvider } from "../strikes/queue";
import { Refusals } from "../strikes/Refusals";
import { Boundary } from "./Boundary";
import { Conflicts } from "./Conflicts";
import { FittingProvider } from "./context";
import classes from "./Frame.module.css";
import { Heard } from "./Heard";
import { Keys } from "./Keys";
import { Later } from "./later";
import { NewerHere } from "./Newer";
import { Rail } from "./Rail";
import { SetBench } from "./SetBench";
import { Strip } from "./Strip";
import { OTHERS, STEPS, type Step } from "./steps";
import { useFitting } from "./useFitting";
import { RememberedUnder, rememberedOf } from "./useRemembered";
import { useWholeRack } from "./useWholeRack";

const PROGRAMS_AFTER_MS = 1500;

export default function FittingPage() {
  const { id = "", step = "player" } = useParams();
  const client = useQueryClient();
  // the step's program comes while the fitting is read
  useEffect(() => load([...STEPS, ...OTHERS].filter(({ key }) => key === step)), [step]);
  const query = useQuery({
    queryKey: ["fitting", id],
    queryFn: () =>
      unwrap(api.GET("/api/fittings/{fitting_id}", { params: { path: { fitting_id: id }, query: { at_once: true } } })),
    // one that is shown is read again by the page itself
    refetchInterval: (question) => (question.state.data ? false : againAfter(question)),
  });
  // the next visit asks the server again; what is kept meanwhile is for a visit without a connection
  useEffect(
    () => () => void client.invalidateQueries({ queryKey: ["fitting", id], refetchType: "none" }),
    [client, id],
  );
  // what an earlier visit left behind is shown only when nothing newer can be had
  const shown = useRef<string | null>(null);
  const asking = query.isStale && query.isFetching && shown.current !== id;
  // while it is asked for again, what is wrong stays, and the way back under the finger
  const wrong = useRef<{ id: string; words: string } | null>(null);
  if (query.error) wrong.current = { id, words: query.error.message };
  const lost = !query.data && wrong.current?.id === id ? wrong.current.words : null;
  if ((query.isPending || asking) && lost === null) return <Skeleton />;
  if (!query.data)
    return (
      <main className={classes.lost}>
        <h1>This fitting cannot be opened</h1>
        <p>{lost}</p>
        <Link to="/">Back to the players</Link>
      </main>
    );
  shown.current = id; // from now on the page itself reads it again: what is being typed stays
  const old = query.error instanceof RequestError && query.error.status === NO_ANSWER ? query.dataUpdatedAt : null;
  return <Frame key={id} fitting={query.data} old={old} />;
}

/** `old`: when this browser heard the fitting last, if nothing newer can be had. */
function Frame({ fitting, old }: { fitting: Fitting; old: number | null }) {
  const { session, ended } = useStanding();
  const store = useFitting({ initial: fitting, fitter: session.fitter_id ?? "", open: ended === null });
  const { step = "player" } = useParams();
  const client = useQueryClient();
  const now = store.server;
  // what is kept for a visit without a connection is the newest there is
  const heard = useRef(now);
  useEffect(() => {
    if (now !== heard.current) client.setQueryData(["fitting", now.id], now);
    heard.current = now;
  }, [client, now]);
  const unheard = useWholeRack(store);
  usePrograms();
  useEffect(() => onUnsure(store.refresh), [store.refresh]);
  const [benchOpen, setBenchOpen] = useState(false);
  const found = [...STEPS, ...OTHERS].find((s) => s.key === step);
  const name = found?.name;
  useEffect(() => {
    document.title = `${name ?? ""} · ${store.draft.player.name} · Oblatus`;
  }, [name, store.draft.player.name]);
  if (!found) return <Navigate to="../player" replace />;
  return (
    <FittingProvider value={{ ...store, unheard }}>
      <RememberedUnder value={rememberedOf(session.fitter_id ?? "", fitting.id)}>
        <StrikeQueueProvider>
          <LiveProvider>
            <div className={classes.frame}>
              <a href="#work" className={classes.skip}>
                To the step
              </a>
              <Strip old={old} onBench={() => setBenchOpen((open) => !open)} />
              <Rail current={step} />
              <main className={classes.work} id="work" tabIndex={-1}>
                <NewerHere />
                <Conflicts />
                <Refusals />
                <Boundary key={step} name={found.name} back={`/fittings/${fitting.id}/player`}>
                  <Later of={found.page} props={{}} waiting={<div className={classes.pause} />} />
                </Boundary>
              </main>
              <SetBench open={benchOpen} />
              <Heard result={now.recommendation} toCome={now.to_come} />
              <Keys current={step} />
            </div>
          </LiveProvider>
        </StrikeQueueProvider>
      </RememberedUnder>
    </FittingProvider>
  );
}

function load(some: readonly Pick<Step, "page">[]) {
  for (const { page } of some) page.load().catch(() => {}); // the step itself says so when it is shown
}

/** The programs of all steps come once the fitting is quiet: a step key then shows its step at once. */
function usePrograms() {
  useEffect(() => {
    const timer = setTimeout(() => load(STEPS), PROGRAMS_AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
}

function Skeleton() {
  return (
    <div className={classes.frame} role="status" aria-busy="true" aria-label="Loading the fitting">
      <div className={classes.strip} />
      <div className={classes.rail} />
      <div className={classes.work} />
      <div className={classes.bench} />
    </div>
  );
}
