import type { Session } from "../api/client";
import { local } from "../offline/texts";

const KEY = "oblatus-who";
const CHANNEL = "oblatus-session";

/** What the tabs of a browser tell one another about who is signed in. */
export type Word = { kind: "out" } | { kind: "in"; fitter: string };

/** Who was signed in on this browser last: enough to open what it keeps of theirs without a connection. */
export function lastWho(): Session | null {
  try {
    const found = JSON.parse(local.read(KEY) ?? "null") as Session | null;
    return found?.fitter_id ? { ...found, csrf_token: "" } : null;
  } catch {
    return null;
  }
}

/** Remember who is signed in, or forget it. */
export function rememberWho(session: Session | null) {
  if (session?.fitter_id) local.keep(KEY, JSON.stringify({ ...session, csrf_token: "" }));
  else local.drop(KEY);
}

/** Tell the other tabs of this browser. */
export function tellTabs(word: Word) {
  if (typeof BroadcastChannel === "undefined") return;
  const channel = new BroadcastChannel(CHANNEL);
  channel.postMessage(word);
  channel.close();
}

/** Hear the other tabs; the function that is given back stops it. */
export function hearTabs(hear: (word: Word) => void): () => void {
  if (typeof BroadcastChannel === "undefined") return () => {};
  const channel = new BroadcastChannel(CHANNEL);
  channel.onmessage = (event: MessageEvent<Word>) => hear(event.data);
  return () => channel.close();
}
