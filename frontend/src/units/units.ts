/** Numbers with their unit in the type, so that the compiler stops a mix; formatting to what the fitter reads. */

declare const unit: unique symbol;
export type Metres = number & { readonly [unit]: "m" };
export type MetresPerSecond = number & { readonly [unit]: "m/s" };

export const metres = (value: number) => value as Metres;
export const metresPerSecond = (value: number) => value as MetresPerSecond;

export const METRES_PER_YARD = 0.9144;
export const METRES_PER_SECOND_PER_MPH = (1760 * METRES_PER_YARD) / 3600;

export type DistanceUnit = "m" | "yd";
export type SpeedUnit = "mps" | "mph";

export const SPEED_LABEL: Record<SpeedUnit, string> = { mps: "m/s", mph: "mph" };

export function inDistance(value: Metres, to: DistanceUnit): number {
  return to === "yd" ? value / METRES_PER_YARD : value;
}

export function fromDistance(value: number, from: DistanceUnit): Metres {
  return metres(from === "yd" ? value * METRES_PER_YARD : value);
}

export function inSpeed(value: MetresPerSecond, to: SpeedUnit): number {
  return to === "mph" ? value / METRES_PER_SECOND_PER_MPH : value;
}

export function fromSpeed(value: number, from: SpeedUnit): MetresPerSecond {
  return metresPerSecond(from === "mph" ? value * METRES_PER_SECOND_PER_MPH : value);
}

/** A number with a true minus sign and without a lonely "−0". */
export function plain(value: number, places = 0): string {
  const text = value.toFixed(places);
  return Number(text) === 0 ? text.replace("-", "") : text.replace("-", "−");
}

/** At most `places` decimals, none that say nothing. */
export function trimmed(value: number, places = 1): string {
  const rounded = Number(value.toFixed(places));
  return plain(rounded, String(rounded).split(".")[1]?.length ?? 0);
}

export function showDistance(value: Metres, to: DistanceUnit, places = 0): string {
  return `${plain(inDistance(value, to), places)}\u00a0${to}`;
}

export function showSpeed(value: MetresPerSecond, to: SpeedUnit, places = 1): string {
  return `${plain(inSpeed(value, to), places)}\u00a0${SPEED_LABEL[to]}`;
}

export function showPercent(share: number, places = 0): string {
  return `${plain(100 * share, places)}\u00a0%`;
}

/** What someone typed as a number: decimal comma or point, any minus, spaces aside; null if it is not one. */
export function parseNumber(text: string): number | null {
  const tidy = text.trim().replace(/[−–]/g, "-").replace(",", ".").replace(/\s/g, "");
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(tidy)) return null;
  return Number(tidy);
}

const grouped = new Intl.NumberFormat("en-GB");

/** How many of something, with its thousands set apart. */
export const count = (value: number) => grouped.format(value);

/** So many of something: "1 strike", "12,300 strikes". */
export const counted = (value: number, one: string, several = `${one}s`) =>
  `${count(value)} ${value === 1 ? one : several}`;

/** A figure's unit as this reader has it. */
export function signOf(unit: string, units: Units): string {
  if (unit === "m") return units.distance;
  return unit === "m/s" ? SPEED_LABEL[units.speed] : unit;
}

export interface Shown {
  unit: string;
  percent?: boolean;
}

export type Units = { distance: DistanceUnit; speed: SpeedUnit };

/** A figure of a document as this reader sees it. */
export function inReader({ unit, percent }: Shown, value: number, units: Units): number {
  if (percent) return 100 * value;
  if (unit === "m") return inDistance(metres(value), units.distance);
  return unit === "m/s" ? inSpeed(metresPerSecond(value), units.speed) : value;
}

/** What this reader typed, as the document has it. */
export function toDocument({ unit, percent }: Shown, typed: number, units: Units): number {
  if (percent) return typed / 100;
  if (unit === "m") return fromDistance(typed, units.distance);
  return unit === "m/s" ? fromSpeed(typed, units.speed) : typed;
}
