import { Loader } from "@mantine/core";
import { lazy, Suspense } from "react";
import { Navigate, Route, Routes } from "react-router";
import { UnitsProvider } from "./context";
import { useSession } from "./session";

const SignIn = lazy(() => import("./SignIn"));
const Players = lazy(() => import("./Players"));
const ShotDesk = lazy(() => import("../desk/ShotDesk"));
const FittingPage = lazy(() => import("./FittingPage"));

export function App() {
  const session = useSession();
  if (session.isPending) return <Waiting />;
  if (session.isError)
    return (
      <main style={{ padding: 40 }}>
        <h1>Oblatus does not answer</h1>
        <p>Is ./start still running? Load this page again when it is.</p>
      </main>
    );
  if (!session.data.fitter)
    return (
      <Suspense fallback={<Waiting />}>
        <SignIn />
      </Suspense>
    );
  return (
    <UnitsProvider value={session.data.units ?? { distance: "m", speed: "mps" }}>
      <Suspense fallback={<Waiting />}>
        <Routes>
          <Route path="/" element={<Players session={session.data} />} />
          <Route path="/fittings/:id" element={<Navigate to="player" replace />} />
          <Route path="/fittings/:id/:step" element={<FittingPage />} />
          <Route path="/desk" element={<ShotDesk />} />
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Suspense>
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
