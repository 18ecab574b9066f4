import type { QueryClient } from "@tanstack/react-query";

const QUIET_MS = 25;

/**
 * Ask the server again for everything of a fitting under these names. An answer on its way may have been made before the
 * change: it is not waited for, also when it would be the first one.
 */
export async function askAgain(client: QueryClient, names: readonly string[], id: string): Promise<void> {
  await Promise.all(
    names.map(async (name) => {
      await client.cancelQueries({ queryKey: [name, id] });
      await client.invalidateQueries({ queryKey: [name, id] });
      // somebody else may have asked again meanwhile and put this question away: theirs is the answer then
      while (client.isFetching({ queryKey: [name, id] }) > 0) await new Promise((done) => setTimeout(done, QUIET_MS));
    }),
  );
}
