import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { Picture } from "../Picture";
import { RULER_HEIGHT, Ruler } from "../Ruler";

/** Pixels of a metre or yard: a thumb sets one. */
const PER_UNIT = 9;
const ROW = 18;
const TICKS = 2;
const NAMED = 10;
/** Pixels that the ruler's unit needs at the left, a letter of a name, the gap before it, and half a number of the ruler. */
const WORDS = 30;
const LETTER = 7.2;
const GAP = 9;
const NUMBER = 14;
/** Less than this is a tap, in pixels. */
const TAP = 4;
const BIG_STEP = 10;

/** A shot on the ruler: where it lands and where it comes to rest, in the reader's unit. */
export interface OnRuler {
  name: string;
  /** What is left of the name where there is little room. */
  short: string;
  carry: number;
  rests: number;
}

interface Props {
  /** Distances that are answered, rising, in the reader's unit, and the place of the one that is shown. */
  distances: readonly number[];
  at: number;
  unit: string;
  shots: readonly OnRuler[];
  onMove: (at: number) => void;
}

/** The ruler of distances under a thumb: the flag stands in the middle, the shots for it below. */
export function FlagRuler({ distances, at, unit, shots, onMove }: Props) {
  const held = useRef<{ x: number; flag: number; moved: boolean } | null>(null);
  const last = distances.length - 1;
  const flag = distances[at] ?? 0;
  const nearest = (wanted: number) =>
    distances.reduce(
      (best, one, n) => (Math.abs(one - wanted) < Math.abs((distances[best] ?? 0) - wanted) ? n : best),
      0,
    );
  const down = (event: PointerEvent<SVGSVGElement>) => {
    event.currentTarget.setPointerCapture?.(event.pointerId);
    held.current = { x: event.clientX, flag, moved: false };
  };
  const move = (event: PointerEvent) => {
    const from = held.current;
    if (!from) return;
    const by = event.clientX - from.x;
    from.moved ||= Math.abs(by) >= TAP;
    if (from.moved) onMove(nearest(from.flag - by / PER_UNIT));
  };
  const up = (event: PointerEvent<SVGSVGElement>) => {
    const from = held.current;
    held.current = null;
    if (!from || from.moved) return;
    const box = event.currentTarget.getBoundingClientRect();
    onMove(nearest(flag + (event.clientX - box.left - box.width / 2) / PER_UNIT));
  };
  const key = (event: KeyboardEvent) => {
    const to = {
      ArrowLeft: at - 1, ArrowDown: at - 1, ArrowRight: at + 1, ArrowUp: at + 1, PageDown: at - BIG_STEP,
      PageUp: at + BIG_STEP, Home: 0, End: last,
    }[event.key]; // biome-ignore format: keys in a few lines
    if (to === undefined) return;
    event.preventDefault();
    onMove(Math.min(Math.max(to, 0), last));
  };
  const height = RULER_HEIGHT + ROW * (Math.max(shots.length, 1) + 0.5);
  return (
    <Picture
      height={height}
      role="slider"
      tabIndex={0}
      aria-label="Distance to the flag"
      aria-valuemin={Math.round(distances[0] ?? 0)}
      aria-valuemax={Math.round(distances[last] ?? 0)}
      aria-valuenow={Math.round(flag)}
      aria-valuetext={`${Math.round(flag)}\u00a0${unit}`}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={() => {
        held.current = null;
      }}
      onKeyDown={key}
      style={{ touchAction: "pan-y", cursor: "ew-resize" }}
    >
      {(width) => {
        const middle = width / 2;
        const x = (distance: number) => middle + (distance - flag) * PER_UNIT;
        return (
          <>
            <Ruler width={width} words={unit} ticks={ticksAround(flag, width)} at={x} name={nameOf} />
            <path d={`M${middle - 7},0h14l-7,10z`} fill="var(--gorse)" />
            {shots.length > 0 && (
              <line
                x1={middle}
                x2={middle}
                y1={RULER_HEIGHT}
                y2={height}
                stroke="var(--line-2)"
                strokeDasharray="2 3"
              />
            )}
            {shots.map((shot, row) => (
              <ShotRow
                key={`${shot.name} ${shot.carry} ${shot.rests}`}
                name={shot.name}
                short={shot.short}
                lands={x(shot.carry)}
                rests={x(shot.rests)}
                y={RULER_HEIGHT + ROW * (row + 0.5) + 3}
                width={width}
                first={row === 0}
              />
            ))}
          </>
        );
      }}
    </Picture>
  );
}

const nameOf = (tick: number) => (tick % NAMED === 0 ? tick : "");

/** Ticks in sight, none below nothing, none under the unit, none whose number would be cut. */
function ticksAround(flag: number, width: number): number[] {
  const from = Math.ceil(Math.max(flag - (width / 2 - WORDS) / PER_UNIT, 0) / TICKS) * TICKS;
  const last = flag + width / 2 / PER_UNIT;
  const count = Math.max(Math.floor((last - from) / TICKS) + 1, 0);
  const ticks = Array.from({ length: count }, (_, n) => from + n * TICKS);
  return ticks.filter((tick) => tick % NAMED !== 0 || (last - tick) * PER_UNIT > NUMBER);
}

interface RowProps {
  name: string;
  short: string;
  lands: number;
  rests: number;
  y: number;
  width: number;
  first: boolean;
}

/** Where one shot lands and rests; one that is out of sight has its name and an arrow at that end. */
function ShotRow({ name, short, lands, rests, y, width, first }: RowProps) {
  const ink = first ? "var(--ink)" : "var(--ink-2)";
  const style = { fill: ink, fontWeight: first ? 700 : 400 };
  if (rests < 0)
    return (
      <text x={2} y={y + 4} fontSize={13} style={style}>
        ‹ {short}
      </text>
    );
  if (lands > width)
    return (
      <text x={width - 2} y={y + 4} fontSize={13} textAnchor="end" style={style}>
        {short} ›
      </text>
    );
  // away from the flag, where there is room: no name is to cross its line, and a long one is cut to its club
  const room = (words: string) => words.length * LETTER + GAP;
  const before = lands < width / 2 ? lands > room(short) : rests > width - room(short);
  const words = room(name) < (before ? lands : width - rests) ? name : short;
  return (
    <>
      <line x1={lands} x2={rests} y1={y} y2={y} stroke={ink} strokeWidth={first ? 5 : 3} />
      <circle cx={lands} cy={y} r={first ? 5 : 4} fill={ink} />
      <text
        x={before ? lands - GAP : Math.max(rests, lands) + GAP}
        y={y + 4}
        fontSize={13}
        textAnchor={before ? "end" : "start"}
        style={style}
      >
        {words}
      </text>
    </>
  );
}
