import type { Schemas } from "../api/client";

export type Score = Schemas["ScoreDocument"];

/** Scores that the server does not have yet, kept in this phone under the page's token. */
const nameOf = (token: string) => `oblatus-scores-${token}`;

export function waiting(token: string): Score[] {
  try {
    return JSON.parse(localStorage.getItem(nameOf(token)) ?? "[]") as Score[];
  } catch {
    return [];
  }
}

function put(token: string, scores: Score[]) {
  if (scores.length === 0) localStorage.removeItem(nameOf(token));
  else localStorage.setItem(nameOf(token), JSON.stringify(scores));
}

export const keep = (token: string, score: Score) => put(token, [...waiting(token), score]);

/** Send what waits. What the server has is let go; what it will never take is too, with its reason. */
export async function send(token: string): Promise<string | null> {
  const scores = waiting(token);
  if (scores.length === 0) return null;
  const reply = await fetch(`/api/page/${token}/scores`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ scores }),
  });
  const taken = reply.ok || reply.status === 422 || reply.status === 404;
  if (taken) {
    const sent = new Set(scores.map((score) => score.id));
    put(
      token,
      waiting(token).filter((score) => !sent.has(score.id)),
    );
  }
  if (reply.ok) return null;
  const words = ((await reply.json().catch(() => null)) as { message?: string } | null)?.message;
  return words ?? "The studio's server does not answer; the scores wait in this phone.";
}
