/**
 * The act, never twice at a time: asked for while it is under way, it is done once more after that, for all who asked.
 * What is given ends with a run that began after it was asked for.
 */
export function inTurns<Found>(act: () => Promise<Found>): () => Promise<Found> {
  let now: Promise<Found> | null = null;
  let next: Promise<Found> | null = null;
  const run = () => {
    const mine = act().finally(() => {
      if (now === mine) now = null;
    });
    now = mine;
    return mine;
  };
  return () => {
    if (now === null) return run();
    const after = () => {
      next = null;
      return now ?? run();
    };
    next ??= now.then(after, after);
    return next;
  };
}
