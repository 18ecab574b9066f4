import { expect, it, vi } from "vitest";
import { tellZone } from "../api/zone";
import { dayIn, showDay, showLongDay, showMoment, showTimeOrDay, today } from "./days";

const at = (year: number, month: number, day: number, hour: number) => {
  vi.useFakeTimers();
  vi.setSystemTime(new Date(year, month - 1, day, hour));
};

it("today is the reader's day, at every hour of it", () => {
  for (const hour of [0, 12, 23]) {
    at(2026, 3, 1, hour);
    expect(today()).toBe("2026-03-01");
  }
});

it("days are counted over the ends of months and years, and over the change of the clocks", () => {
  at(2026, 12, 20, 23);
  expect(dayIn(30)).toBe("2027-01-19");
  at(2028, 2, 28, 0);
  expect([dayIn(1), dayIn(2), dayIn(-28)]).toEqual(["2028-02-29", "2028-03-01", "2028-01-31"]);
  at(2026, 3, 28, 0);
  expect(dayIn(2)).toBe("2026-03-30");
});

it("a day is written without shifting it, a moment as it is where the reader is", () => {
  at(2026, 1, 24, 18);
  expect([showDay("2026-01-24"), showLongDay("2026-01-24")]).toEqual(["24 Jan 2026", "24 January 2026"]);
  const moment = new Date(2026, 0, 24, 9, 5).toISOString();
  expect([showDay(moment), showMoment(moment), showTimeOrDay(moment)]).toEqual(["24 Jan 2026", "24 Jan 2026, 09:05", "09:05"]); // biome-ignore format: one line
  expect(showTimeOrDay(new Date(2026, 0, 23, 23, 59).toISOString())).toBe("23 Jan 2026");
});

it("the server is told where the days are", () => {
  tellZone();
  expect(document.cookie).toContain(`oblatus_zone=${Intl.DateTimeFormat().resolvedOptions().timeZone}`);
});
