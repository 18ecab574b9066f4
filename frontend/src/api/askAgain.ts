import type { Query, QueryClient } from "@tanstack/react-query";

const QUIET_MS = 25;

/**
 * Ask the server again for everything of a fitting under these names. An answer on its way may have been made before the
 * change: it is not waited for, also when it would be the first one. Tells whether every answer that a screen shows was
 * asked for after the change.
 */
export async function askAgain(client: QueryClient, names: readonly string[], id: string): Promise<boolean> {
  const came = await Promise.all(
    names.map(async (name) => {
      const queryKey = [name, id];
      await client.cancelQueries({ queryKey });
      await client.invalidateQueries({ queryKey });
      const shown = () => client.getQueryCache().findAll({ queryKey, type: "active" });
      // somebody else may have asked again meanwhile and put this question away: theirs is the answer then
      while (shown().some(isAwaited)) await new Promise((done) => setTimeout(done, QUIET_MS));
      return !shown().some((query) => query.state.isInvalidated);
    }),
  );
  return came.every(Boolean);
}

/** On its way, or put away by somebody who is about to ask again; one that failed is not awaited. */
function isAwaited({ state }: Query): boolean {
  return state.fetchStatus === "fetching" || (state.isInvalidated && state.error === null);
}
