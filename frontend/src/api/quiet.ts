/** A moment before a question that the next edit would make useless; it is not asked if that came meanwhile. */
export async function quiet(ms: number, signal: AbortSignal) {
  await new Promise((done) => setTimeout(done, ms));
  if (signal.aborted) throw new Error("superseded");
}
