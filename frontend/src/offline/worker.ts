/** Keep the program itself in the browser. A newer one that was fetched meanwhile is taken at the start of a page only. */
export async function keepProgram(): Promise<void> {
  if (!("serviceWorker" in navigator) || import.meta.env.DEV) return;
  const worker = await navigator.serviceWorker.register("/sw.js").catch(() => null);
  const next = worker?.waiting;
  if (!next) return;
  navigator.serviceWorker.addEventListener("controllerchange", () => window.location.reload(), { once: true });
  next.postMessage({ type: "SKIP_WAITING" });
}
