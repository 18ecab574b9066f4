import type { Schemas } from "../api/client";
import { local } from "../offline/texts";

export type Score = Schemas["ScoreDocument"];
export type Shot = Schemas["LogShotDocument"];

/** What goes out of this phone: scores of drills and shots of the course, each kind to an address of its own. */
const KINDS = ["scores", "shots"] as const;
type Kind = (typeof KINDS)[number];
interface Kept {
  scores: Score;
  shots: Shot;
}

/** What the server does not have yet, kept in this phone under the page's token; here where it keeps nothing. */
const unkept = new Map<string, unknown[]>();
const nameOf = (kind: Kind, token: string) => `oblatus-${kind}-${token}`;

export function waiting<K extends Kind>(kind: K, token: string): Kept[K][] {
  const name = nameOf(kind, token);
  return [...stored<K>(name), ...((unkept.get(name) ?? []) as Kept[K][])];
}

function stored<K extends Kind>(name: string): Kept[K][] {
  try {
    return JSON.parse(local.read(name) ?? "[]") as Kept[K][];
  } catch {
    return [];
  }
}

function put<K extends Kind>(kind: K, token: string, some: Kept[K][]) {
  const name = nameOf(kind, token);
  unkept.delete(name);
  if (some.length === 0) local.drop(name);
  else if (!local.keep(name, JSON.stringify(some))) {
    // no room for more: what stands there stays, the rest is here
    const there = new Set(stored<K>(name).map((one) => JSON.stringify(one)));
    unkept.set(
      name,
      some.filter((one) => !there.has(JSON.stringify(one))),
    );
  }
}

export const keep = (token: string, score: Score) => put("scores", token, [...waiting("scores", token), score]);
export const keepShot = (token: string, shot: Shot) => put("shots", token, [...waiting("shots", token), shot]);

/** Why the server does not take something; `again`: whether it may, later. */
export interface Refused {
  words: string;
  again: boolean;
}

/**
 * Send what waits; it is let go once the server has it and not before. Returns why it does not take some of it: what is
 * refused keeps nothing else waiting.
 */
export async function send(token: string, signal?: AbortSignal): Promise<Refused | null> {
  let refused: Refused | null = null;
  for (const kind of KINDS) {
    const some = waiting(kind, token).slice(0, AT_ONCE);
    if (some.length > 0) refused = (await sendSome(kind, token, some, signal)) ?? refused;
  }
  return refused;
}

async function sendSome<K extends Kind>(
  kind: K,
  token: string,
  some: Kept[K][],
  signal: AbortSignal | undefined,
): Promise<Refused | null> {
  const reply = await fetch(`/api/page/${token}/${kind}`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ [kind]: some }),
    signal,
  });
  if (reply.ok) {
    // a shot that was taken back since goes under the same id: only what was sent is let go
    const sent = new Set(some.map((one) => JSON.stringify(one)));
    const left = waiting(kind, token).filter((one) => !sent.has(JSON.stringify(one)));
    put(kind, token, left);
    return null;
  }
  if (reply.status === 422 && some.length > 1) {
    let refused: Refused | null = null; // something is wrong with one of them
    for (const one of some) refused = (await sendSome(kind, token, [one], signal)) ?? refused;
    return refused;
  }
  const words = ((await reply.json().catch(() => null)) as { message?: string } | null)?.message;
  const again = reply.status === 429 || reply.status >= 500;
  return { words: words ?? "The studio's server does not answer.", again };
}

const AT_ONCE = 100;
