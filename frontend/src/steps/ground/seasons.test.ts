import { expect, it } from "vitest";
import { lastOf, seasonOf } from "./seasons";

it("knows the season of a day, December with the winter that follows", () => {
  expect(["2025-12-24", "2026-02-28", "2026-03-01", "2026-08-31", "2026-11-30"].map(seasonOf)).toEqual([
    "winter",
    "winter",
    "spring",
    "summer",
    "autumn",
  ]);
});

it("finds last winter's readings, the newest of them", () => {
  const record = (season: "winter" | "summer", read_on: string) => ({ season, read_on });
  const records = [record("summer", "2026-07-03"), record("winter", "2025-01-18"), record("winter", "2026-01-24")];
  expect(lastOf(records, "winter")?.read_on).toBe("2026-01-24");
  expect(lastOf(records, "spring")).toBeUndefined();
});
