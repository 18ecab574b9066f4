import { Loader } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { lazy, type ReactNode, Suspense, useEffect, useState } from "react";
import { Navigate, Route, Routes } from "react-router";
import { keepCache, restoreCache } from "../offline/cache";
import { SignInSheet } from "../session/SignInSheet";
import { SessionProvider, useSession, useStanding } from "../session/session";
import { UnitsProvider } from "./context";

const SignIn = lazy(() => import("./SignIn"));
const Players = lazy(() => import("./Players"));
const Account = lazy(() => import("./Account"));
const Claims = lazy(() => import("./Claims"));
const ShotDesk = lazy(() => import("../desk/ShotDesk"));
const FittingPage = lazy(() => import("./FittingPage"));

export function App() {
  const session = useSession();
  const [whose, setWhose] = useState<string | null>(null);
  const fitter = session.data?.fitter_id ?? null;
  // the page belongs to whoever opened it until they leave it: a session that ends does not take it away
  if (whose === null && fitter !== null) setWhose(fitter);
  if (session.isPending) return <Waiting />;
  if (session.isError && whose === null)
    return (
      <main style={{ padding: 40 }}>
        <h1>Oblatus does not answer</h1>
        <p>Is ./start still running? Load this page again when it is.</p>
      </main>
    );
  if (whose === null || !session.data)
    return (
      <Suspense fallback={<Waiting />}>
        <SignIn />
      </Suspense>
    );
  return (
    <SessionProvider key={whose} session={session.data}>
      <Kept fitter={whose}>
        <Pages onLeave={() => setWhose(null)} />
      </Kept>
    </SessionProvider>
  );
}

/** What this browser heard before is there before the first page is shown. */
function Kept({ fitter, children }: { fitter: string; children: ReactNode }) {
  const client = useQueryClient();
  const [ready, setReady] = useState(false);
  useEffect(() => {
    let stop = () => {};
    let here = true;
    restoreCache(client, fitter)
      .catch(() => {}) // a browser that keeps nothing starts with nothing
      .finally(() => {
        if (!here) return;
        stop = keepCache(client, fitter);
        setReady(true);
      });
    return () => {
      here = false;
      stop();
      // the next fitter of this tab starts with nothing of this one's
      client.removeQueries({ predicate: (query) => query.queryKey[0] !== "session" });
    };
  }, [client, fitter]);
  return ready ? children : <Waiting />;
}

function Pages({ onLeave }: { onLeave: () => void }) {
  const { session, ended } = useStanding();
  return (
    <UnitsProvider value={session.units ?? { distance: "m", speed: "mps" }}>
      <Suspense fallback={<Waiting />}>
        <Routes>
          <Route path="/" element={<Players session={session} onLeave={onLeave} />} />
          <Route path="/account" element={<Account onLeave={onLeave} />} />
          <Route path="/fittings/:id" element={<Navigate to="player" replace />} />
          <Route path="/fittings/:id/:step" element={<FittingPage />} />
          <Route path="/claims" element={<Claims />} />
          <Route path="/desk" element={<ShotDesk />} />
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Suspense>
      {ended !== null && <SignInSheet ended={ended} session={session} onLeave={onLeave} />}
    </UnitsProvider>
  );
}

function Waiting() {
  return (
    <div style={{ display: "grid", placeItems: "center", height: "100%" }}>
      <Loader type="bars" size="sm" aria-label="Loading" />
    </div>
  );
}
