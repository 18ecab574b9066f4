import { scaleLinear } from "d3-scale";

/** The one ruler of a sole's pictures: millimetres from the ball's centre, the same pixels in each of one width. */
export const TURF_RANGE = [-120, 60] as const;
export const SAND_RANGE = [-150, 30] as const;

/** Marks in sand run on ahead of the ball: they have a longer ruler of their own. */
export const MARK_RANGE = [-160, 180] as const;

/** Pixels at the left of a ruler that its words need: ticks begin behind them. */
export const RULER_WORDS = 92;

/** Pixels that a tick's number needs. */
const TICK_ROOM = 30;

export function markScale(sand: boolean, width: number) {
  return sand ? scaleLinear([...MARK_RANGE], [0, width]) : entryScale(false, width);
}

export function markTicks(sand: boolean, width: number): number[] {
  const range = sand ? MARK_RANGE : TURF_RANGE;
  return ticksOf([markScale(sand, width).invert(RULER_WORDS), range[1]], width, sand ? 40 : 20);
}

export function entryScale(sand: boolean, width: number) {
  return scaleLinear([...(sand ? SAND_RANGE : TURF_RANGE)], [0, width]);
}

/** Marks that can be set with the keyboard. */
export const markRange = (sand: boolean): readonly [number, number] => (sand ? MARK_RANGE : entryRange(false));

/** Entries that can be set at a picture: its ruler, but for the rim. */
export function entryRange(sand: boolean): readonly [number, number] {
  const [from, to] = sand ? SAND_RANGE : TURF_RANGE;
  return [from + 5, to - 5];
}

/** Where a picture of one pass looks on a narrow screen: the ball and the sole, and the whole ruler on a wide one. */
export function passScale(sand: boolean, entry: number, width: number, narrow: boolean) {
  if (!narrow) return entryScale(sand, width);
  const from = Math.max(Math.min(-78, entry - 22), (sand ? SAND_RANGE : TURF_RANGE)[0]);
  return scaleLinear([from, Math.max(32, entry + 12)], [0, width]);
}

export function ticksOf(range: readonly [number, number], width: number, step: number): number[] {
  const [from, to] = range;
  const by = ((to - from) / step) * TICK_ROOM > width ? 2 * step : step;
  const first = Math.ceil((from + 5) / by) * by;
  return Array.from({ length: Math.max(Math.floor((to - 5 - first) / by) + 1, 0) }, (_, i) => first + by * i);
}
