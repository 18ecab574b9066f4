import { local } from "../offline/texts";
import { today } from "../units/days";

const nameOf = (token: string, drill: string) => `oblatus-count-${token}-${drill}`;

/** The balls of a drill that were counted today and make no score yet: a phone may be put away in the middle of a go. */
export function readCount(token: string, drill: string): boolean[] {
  try {
    const kept = JSON.parse(local.read(nameOf(token, drill)) ?? "null") as { on: string; balls: boolean[] } | null;
    return kept?.on === today() ? kept.balls : [];
  } catch {
    return [];
  }
}

/** Keep them, or forget them once they are a score. */
export function writeCount(token: string, drill: string, balls: readonly boolean[]) {
  if (balls.length === 0) local.drop(nameOf(token, drill));
  else local.keep(nameOf(token, drill), JSON.stringify({ on: today(), balls }));
}
