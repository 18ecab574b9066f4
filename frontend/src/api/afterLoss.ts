import type { QueryClient } from "@tanstack/react-query";
import { againIn } from "./again";
import { api, lost, NO_ANSWER, NOT_OURS, RequestError, unwrap } from "./client";

/** What the server says of something that another has changed or taken away. */
const OTHERWISE = [404, 409];
/** Read by whoever owns them: an open fitting has edits on it. */
const OWN = ["session", "fitting"];

const waiting = new WeakSet<QueryClient>();
const hearers = new Set<() => void>();

/** Who else is to ask again once it is known that something may be otherwise than it is shown. */
export function onUnsure(hear: () => void): () => void {
  hearers.add(hear);
  return () => void hearers.delete(hear);
}

/**
 * After an act that got no answer, or was refused because something is otherwise: it may have been done, and what is shown
 * may be of before. Everything shown is asked for again, once the server answers at all: until then it stays as it is.
 */
export async function afterLoss(client: QueryClient, error: Error): Promise<void> {
  if (!(error instanceof RequestError)) return;
  if (error.status === NO_ANSWER || error.status === NOT_OURS) {
    if (waiting.has(client)) return;
    waiting.add(client);
    for (let tries = 1; !(await answers()); tries++) await new Promise((done) => setTimeout(done, againIn(tries)));
    waiting.delete(client);
  } else if (!OTHERWISE.includes(error.status)) return;
  void client.invalidateQueries({ predicate: ({ queryKey: [name] }) => !OWN.includes(String(name)) });
  for (const hear of hearers) hear();
}

const answers = () =>
  unwrap(api.GET("/api/session", { signal: lost() })).then(
    () => true,
    () => false,
  );
