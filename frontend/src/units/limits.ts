import { inReader, parseNumber, type Shown, signOf, toDocument, trimmed, type Units } from "./units";

/**
 * What lies between two limits, in words with their unit; both are rounded to what lies between them, so that what is read
 * is taken.
 */
export function between(low: number, high: number, unit = ""): string {
  const least = inward(low, Math.ceil);
  const most = inward(high, Math.floor);
  const sign = unit === "" || unit === "°" ? unit : `\u00a0${unit}`;
  return `${trimmed(least, FINE)} to ${trimmed(most, FINE)}${sign}`;
}

const FINE = 2;

/** A small limit has two decimals, a larger one one; what only the unit's factor made inexact counts as exact. */
function inward(value: number, round: (value: number) => number): number {
  const per = Math.abs(value) < 10 ? 100 : 10;
  return round(Number((value * per).toFixed(6))) / per;
}

/** What is wrong with what this reader typed for a figure; null where nothing is, or nothing was typed. */
export function faultOf(text: string, figure: Shown & { low: number; high: number }, units: Units): string | null {
  if (text.trim() === "") return null;
  const number = parseNumber(text);
  if (number === null) return "must be a number";
  const value = toDocument(figure, number, units);
  if (value >= figure.low && value <= figure.high) return null;
  return between(inReader(figure, figure.low, units), inReader(figure, figure.high, units), signOf(figure.unit, units));
}
