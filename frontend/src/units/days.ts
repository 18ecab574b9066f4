/** A day where the reader is, so many days from now, as documents have it: 2026-10-03. */
export function dayIn(days: number): string {
  const then = new Date();
  then.setDate(then.getDate() + days);
  const two = (value: number) => String(value).padStart(2, "0");
  return `${then.getFullYear()}-${two(then.getMonth() + 1)}-${two(then.getDate())}`;
}

/** Today where the reader is. */
export const today = () => dayIn(0);
