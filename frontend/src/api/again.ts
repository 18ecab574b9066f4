import type { Query } from "@tanstack/react-query";
import { RequestError } from "./client";

const AGAIN_MS = 5000;
const LONGEST_MS = 60_000;

/** How long is waited after so many tries without an answer [ms]. */
export const againIn = (tries: number) => Math.min(AGAIN_MS * 2 ** (tries - 1), LONGEST_MS);

/**
 * When a question that has no answer is asked again while a screen shows it [ms]; never where the server refuses it, or
 * nobody is signed in: then it is asked again by whoever changes that.
 */
export function againAfter({ state }: Pick<Query, "state">): number | false {
  const { status, error, errorUpdateCount } = state;
  if (status !== "error" || !(error instanceof RequestError) || error.refused || error.status === 401) return false;
  return Math.max(againIn(errorUpdateCount), 1000 * (error.after ?? 0));
}
