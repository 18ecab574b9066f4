import { dehydrate, hydrate, type Query, type QueryClient } from "@tanstack/react-query";
import { openDB } from "idb";

/** Answers that are worth showing without a connection; what says how things go at this moment is not among them. */
const KEPT = [
  "fittings",
  "fitting",
  "catalogue",
  "carries",
  "session-summary",
  "proofs",
  "kept",
  "build",
  "rack",
  "venues",
  "readings",
];
const isKept = (query: Query) => KEPT.includes(String(query.queryKey[0]));
const STORE = "answers";
const QUIET_MS = 1500;

const database = () =>
  openDB("oblatus-answers", 1, {
    upgrade(db) {
      db.createObjectStore(STORE);
    },
  });

/** Show what this browser heard last for this fitter, and ask again for all of it. */
export async function restoreCache(client: QueryClient, fitter: string): Promise<void> {
  const state = await (await database()).get(STORE, fitter);
  if (!state) return;
  hydrate(client, state);
  for (const query of client.getQueryCache().getAll()) if (KEPT.includes(String(query.queryKey[0]))) query.invalidate();
}

/** Keep what is heard from now on; the function that is given back stops it. */
export function keepCache(client: QueryClient, fitter: string): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const write = async () => {
    const state = dehydrate(client, {
      shouldDehydrateQuery: (query) => query.state.data !== undefined && isKept(query),
    });
    await (await database()).put(STORE, JSON.parse(JSON.stringify(state)), fitter);
  };
  const stop = client.getQueryCache().subscribe((event) => {
    if (event.type !== "updated" || event.action.type !== "success" || !isKept(event.query)) return;
    timer ??= setTimeout(() => {
      timer = undefined;
      void write().catch(() => {}); // a browser that keeps nothing shows nothing offline
    }, QUIET_MS);
  });
  return () => {
    stop();
    clearTimeout(timer);
  };
}

/** Forget what was kept for a fitter. */
export async function forgetCache(fitter: string): Promise<void> {
  await (await database()).delete(STORE, fitter);
}
