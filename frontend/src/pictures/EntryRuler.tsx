import type { ScaleLinear } from "d3-scale";
import { fromBall, Ruler } from "./Ruler";
import { RULER_WORDS, ticksOf } from "./scales";

/** The ruler of entries: millimetres from the ball's centre, with ticks behind its words. */
export function EntryRuler({ width, x }: { width: number; x: ScaleLinear<number, number> }) {
  const ticks = ticksOf([x.invert(RULER_WORDS), x.invert(width)], width, 20);
  return <Ruler width={width} words="mm behind" ticks={ticks} at={x} name={fromBall} />;
}
