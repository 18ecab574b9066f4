import type { Schemas } from "../api/client";

export type Score = Schemas["ScoreDocument"];

/** Scores that the server does not have yet, kept in this phone under the page's token; here where it keeps nothing. */
const unkept = new Map<string, Score[]>();
const nameOf = (token: string) => `oblatus-scores-${token}`;

export function waiting(token: string): Score[] {
  try {
    return [...(JSON.parse(localStorage.getItem(nameOf(token)) ?? "[]") as Score[]), ...(unkept.get(token) ?? [])];
  } catch {
    return unkept.get(token) ?? [];
  }
}

function put(token: string, scores: Score[]) {
  try {
    if (scores.length === 0) localStorage.removeItem(nameOf(token));
    else localStorage.setItem(nameOf(token), JSON.stringify(scores));
    unkept.delete(token);
  } catch {
    unkept.set(token, scores);
  }
}

export const keep = (token: string, score: Score) => put(token, [...waiting(token), score]);

/** Send what waits; it is let go once the server has it and not before. Returns why it does not take it. */
export async function send(token: string): Promise<string | null> {
  const scores = waiting(token);
  const reply = await fetch(`/api/page/${token}/scores`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ scores: scores.slice(0, AT_ONCE) }),
  });
  if (reply.ok) {
    const sent = new Set(scores.slice(0, AT_ONCE).map((score) => score.id));
    put(
      token,
      waiting(token).filter((score) => !sent.has(score.id)),
    );
    return null;
  }
  const words = ((await reply.json().catch(() => null)) as { message?: string } | null)?.message;
  return words ?? "The studio's server does not answer.";
}

const AT_ONCE = 100;
