/** An act at the server: what it failed with, and when it was begun. */
interface Act {
  error: Error | null;
  submittedAt: number;
}

/** What the act that was begun last failed with; what failed before another was begun is over. */
export function lastFailure(...acts: readonly [Act, ...Act[]]): Error | null {
  return acts.reduce((last, act) => (act.submittedAt > last.submittedAt ? act : last)).error;
}
