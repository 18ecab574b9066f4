/* The player's page without a connection: what was fetched last is shown again, the newest first where there is a line. */
const STORE = "oblatus-phone-1";
/** How long a weak signal is waited for where something is kept [ms]: what comes later is kept for the next time. */
const PATIENCE_MS = 3000;

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

const isMine = (url) =>
  url.origin === self.location.origin && /^\/(p\/|assets\/|icon\.svg$|api\/page\/[^/]+$)/.test(url.pathname);

self.addEventListener("fetch", (event) => {
  const url = new URL(event.request.url);
  if (event.request.method !== "GET" || !isMine(url)) return;
  const fresh = async () => {
    const answer = await fetch(event.request);
    if (answer.ok) (await caches.open(STORE)).put(event.request, answer.clone());
    // a page that was closed is not shown from the past
    else if (answer.status === 404) await (await caches.open(STORE)).delete(event.request);
    return answer;
  };
  const kept = () => caches.match(event.request);
  // where the page asks for what it has just sent, nothing but the server's answer will do
  const must = event.request.cache === "reload";
  const newest = async () => {
    const found = await kept();
    if (!found) return fresh();
    const late = new Promise((done) => setTimeout(done, PATIENCE_MS, found));
    return Promise.race([fresh().catch(() => found), ...(must ? [] : [late])]);
  };
  // hashed files never change
  const assets = url.pathname.startsWith("/assets/");
  event.respondWith(assets ? kept().then((found) => found ?? fresh()) : newest());
});
