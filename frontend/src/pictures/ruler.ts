import { scaleLinear } from "d3-scale";

/** The one ruler of a sole's pictures: millimetres from the ball's centre, the same pixels in each. */
export const RULER_WIDTH = 906;

export const TURF_RANGE = [-120, 60] as const;
export const SAND_RANGE = [-150, 30] as const;

/** Marks in sand run on ahead of the ball: they have a longer ruler of their own. */
export const MARK_RANGE = [-160, 180] as const;

export function markScale(sand: boolean) {
  return sand ? scaleLinear([...MARK_RANGE], [0, RULER_WIDTH]) : entryScale(false);
}

export function markTicks(sand: boolean): number[] {
  if (!sand) return entryTicks(false);
  return [-120, -80, -40, 0, 40, 80, 120, 160];
}

export function entryScale(sand: boolean) {
  const range = sand ? SAND_RANGE : TURF_RANGE;
  return scaleLinear([...range], [0, RULER_WIDTH]);
}

export function entryTicks(sand: boolean): number[] {
  const [from, to] = sand ? SAND_RANGE : TURF_RANGE;
  const first = Math.ceil((from + 5) / 20) * 20;
  return Array.from({ length: Math.floor((to - 5 - first) / 20) + 1 }, (_, i) => first + 20 * i);
}
