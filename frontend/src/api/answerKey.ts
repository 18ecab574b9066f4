import type { Fitting } from "./client";

/**
 * The key of what the engine answers about a fitting: another one as soon as anything changed that the answer rests on,
 * also where the document did not change. The rack is the studio's: somebody may have put another in its place.
 */
export const answerKey = (
  name: string,
  { id, revision, strikes_key, rack_key }: Pick<Fitting, "id" | "revision" | "strikes_key" | "rack_key">,
  ...asked: unknown[]
) => [name, id, revision, strikes_key, rack_key, ...asked];

/** The same for an answer that follows from nothing else, however long it is kept; lists may have grown meanwhile. */
export const exactly = (...asked: Parameters<typeof answerKey>) => ({
  queryKey: answerKey(...asked),
  staleTime: Number.POSITIVE_INFINITY,
});
