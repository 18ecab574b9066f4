const kept = () => "serviceWorker" in navigator && !import.meta.env.DEV;

/** In an address that the worker leaves to the server: vite.config.ts. */
const NEWEST = "newest";
/** Chromium lets a worker go when it is asked for nothing; one that is asked again at that moment stays for good. */
const QUIET_MS = 6000;

/** Whether this page was loaded by `takeNewest`; its address is as it was before, also for a visit without a connection. */
export function isNewest(): boolean {
  const here = new URL(window.location.href);
  if (!here.searchParams.has(NEWEST)) return false;
  here.searchParams.delete(NEWEST);
  window.history.replaceState(window.history.state, "", here);
  return true;
}

/**
 * Keep the program itself in the browser. A newer one that is fetched meanwhile serves from when no page of the one before
 * is open, or from when this page is one that `takeNewest` loaded: no page is loaded again by itself. Other tabs go on with
 * the steps that they have loaded, and say that there is a newer one.
 */
export async function keepProgram(newest: boolean): Promise<void> {
  if (!kept()) return;
  const worker = await navigator.serviceWorker.register("/sw.js").catch(() => null);
  if (newest && worker) setTimeout(() => worker.waiting?.postMessage({ type: "SKIP_WAITING" }), QUIET_MS);
}

/**
 * Load the page again with the server's program, also where this browser keeps the one before; raises where nothing
 * answers. The worker that serves the one before may go on for a minute: the page is not asked of it.
 */
export async function takeNewest(): Promise<void> {
  const worker = kept() ? await navigator.serviceWorker.getRegistration() : undefined;
  if (!worker) return window.location.reload();
  await worker.update();
  const here = new URL(window.location.href);
  here.searchParams.set(NEWEST, "");
  window.location.replace(here);
}
