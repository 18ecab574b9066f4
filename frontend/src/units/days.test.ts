import { expect, it, vi } from "vitest";
import { dayIn, today } from "./days";

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
