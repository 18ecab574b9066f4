/** A day where the reader is, so many days from now, as documents have it: 2026-10-03. */
export function dayIn(days: number): string {
  const then = new Date();
  then.setDate(then.getDate() + days);
  const two = (value: number) => String(value).padStart(2, "0");
  return `${then.getFullYear()}-${two(then.getMonth() + 1)}-${two(then.getDate())}`;
}

/** Today where the reader is. */
export const today = () => dayIn(0);

const day = new Intl.DateTimeFormat("en-GB", { dateStyle: "medium" });
const longDay = new Intl.DateTimeFormat("en-GB", { dateStyle: "long" });
const moment = new Intl.DateTimeFormat("en-GB", { dateStyle: "medium", timeStyle: "short" });
const clock = new Intl.DateTimeFormat("en-GB", { timeStyle: "short" });

/** A day as documents have it is the same day everywhere; a moment is one where the reader is. */
const at = (when: string) => new Date(when.length === 10 ? `${when}T12:00:00` : when);

/** A day, or the day of a moment: 3 Oct 2026. */
export const showDay = (when: string) => day.format(at(when));

/** The same written out, for a page that is read alone: 3 October 2026. */
export const showLongDay = (when: string) => longDay.format(at(when));

/** A moment with its time: 3 Oct 2026, 14:05. */
export const showMoment = (when: string) => moment.format(at(when));

/** The time of a moment of today, the day of an earlier one. */
export const showTimeOrDay = (when: string) =>
  at(when).toDateString() === new Date().toDateString() ? clock.format(at(when)) : showDay(when);
