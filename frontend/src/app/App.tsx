import { Loader } from "@mantine/core";
import { useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { Navigate, Route, Routes } from "react-router";
import { keepCache, restoreCache } from "../offline/cache";
import { SessionProvider, useSession, useStanding } from "../session/session";
import { UnitsProvider } from "./context";
import { Later, Program } from "./later";
import { useKeptFocus } from "./useKeptFocus";
import { RememberedUnder, rememberedOf } from "./useRemembered";

const SignIn = new Program(() => import("./SignIn"));
const Players = new Program(() => import("./Players"));
const Account = new Program(() => import("./Account"));
const Claims = new Program(() => import("./Claims"));
const ShotDesk = new Program(() => import("../desk/ShotDesk"));
const FittingPage = new Program(() => import("./FittingPage"));
const SignInSheet = new Program(() => import("../session/SignInSheet"));

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
  if (whose === null || !session.data) return <Later of={SignIn} props={{}} waiting={<Waiting />} />;
  return (
    <SessionProvider key={whose} session={session.data}>
      <Kept fitter={whose}>
        <RememberedUnder value={rememberedOf(whose, "program")}>
          <Pages onLeave={() => setWhose(null)} />
        </RememberedUnder>
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
    // the page's own program comes meanwhile; if it does not, the page says so
    (location.pathname.startsWith("/fittings/") ? FittingPage : Players).load().catch(() => {});
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
  useKeptFocus();
  useEffect(() => {
    import("../theme/letters").catch(() => {}); // without a connection those of paper stay
    SignInSheet.load().catch(() => {}); // there before a session ends; asked for again then
  }, []);
  return (
    <UnitsProvider value={session.units ?? { distance: "m", speed: "mps" }}>
      <Routes>
        <Route path="/" element={<Later of={Players} props={{ session, onLeave }} waiting={<Waiting />} />} />
        <Route path="/account" element={<Later of={Account} props={{ onLeave }} waiting={<Waiting />} />} />
        <Route path="/fittings/:id" element={<Navigate to="player" replace />} />
        <Route path="/fittings/:id/:step" element={<Later of={FittingPage} props={{}} waiting={<Waiting />} />} />
        <Route path="/claims" element={<Later of={Claims} props={{}} waiting={<Waiting />} />} />
        <Route path="/desk" element={<Later of={ShotDesk} props={{}} waiting={<Waiting />} />} />
        <Route path="*" element={<Navigate to="/" replace />} />
      </Routes>
      {ended !== null && <Later of={SignInSheet} props={{ ended, session, onLeave }} again />}
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
