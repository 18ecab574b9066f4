import { useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useState } from "react";
import { Link, Navigate, useParams } from "react-router";
import { api, type Fitting, unwrap } from "../api/client";
import { LiveProvider } from "../devices/live";
import { StrikeQueueProvider } from "../strikes/queue";
import { FittingProvider } from "./context";
import classes from "./Frame.module.css";
import { Keys } from "./Keys";
import { Rail } from "./Rail";
import { SetBench } from "./SetBench";
import { Strip } from "./Strip";
import { STEPS } from "./steps";
import { useFitting } from "./useFitting";

const PAGES: Record<string, React.LazyExoticComponent<React.ComponentType>> = {
  player: lazy(() => import("../steps/player/PlayerStep")),
  ground: lazy(() => import("../steps/ground/GroundStep")),
  bag: lazy(() => import("../steps/bag/BagStep")),
  strikes: lazy(() => import("../steps/strikes/StrikesStep")),
  carries: lazy(() => import("../steps/carries/CarriesStep")),
  lofts: lazy(() => import("../steps/lofts/LoftsStep")),
  soles: lazy(() => import("../steps/soles/SolesStep")),
  import: lazy(() => import("../steps/import/ImportPage")),
  kept: lazy(() => import("../steps/kept/KeptPage")),
};

/** Steps that wait for what devices send. */
const WAITING: readonly string[] = ["ground", "bag", "strikes"];

const OTHERS: Record<string, string> = { kept: "Kept proposals", import: "Strikes from a file" };

export default function FittingPage() {
  const { id = "" } = useParams();
  const client = useQueryClient();
  const query = useQuery({
    queryKey: ["fitting", id],
    queryFn: () => unwrap(api.GET("/api/fittings/{fitting_id}", { params: { path: { fitting_id: id } } })),
    gcTime: 0,
  });
  // leaving the page forgets it: the next visit shows what the server has then
  useEffect(() => () => client.removeQueries({ queryKey: ["fitting", id] }), [client, id]);
  if (query.isPending) return <Skeleton />;
  if (query.isError)
    return (
      <main className={classes.lost}>
        <h1>This fitting cannot be opened</h1>
        <p>{query.error.message}</p>
        <Link to="/">Back to the players</Link>
      </main>
    );
  return <Frame key={id} fitting={query.data} />;
}

function Frame({ fitting }: { fitting: Fitting }) {
  const store = useFitting(fitting);
  const { step = "player" } = useParams();
  const [benchOpen, setBenchOpen] = useState(false);
  const found = STEPS.find((s) => s.key === step);
  const Page = PAGES[step];
  const name = OTHERS[step] ?? found?.name;
  useEffect(() => {
    document.title = `${name ?? ""} · ${store.draft.player.name} · Oblatus`;
  }, [name, store.draft.player.name]);
  if (!found && !Page) return <Navigate to="../player" replace />;
  return (
    <FittingProvider value={store}>
      <StrikeQueueProvider>
        <LiveProvider waiting={WAITING.includes(step)}>
          <div className={classes.frame}>
            <Strip onBench={() => setBenchOpen((open) => !open)} />
            <Rail current={step} />
            <main className={classes.work} id="work" tabIndex={-1}>
              {Page ? (
                <Suspense fallback={<div className={classes.pause} />}>
                  <Page />
                </Suspense>
              ) : (
                <section className={classes.later}>
                  <h1>{found?.name}</h1>
                  <p>{found?.later}</p>
                </section>
              )}
            </main>
            <SetBench open={benchOpen} />
            <Keys current={step} />
          </div>
        </LiveProvider>
      </StrikeQueueProvider>
    </FittingProvider>
  );
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
