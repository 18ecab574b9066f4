import { area, curveBasis } from "d3-shape";
import type { DeskHead } from "../../desk/useDesk";
import { plain, showPercent } from "../../units/units";
import { EntryRuler } from "../EntryRuler";
import { NARROW, Picture } from "../Picture";
import { RULER_HEIGHT } from "../Ruler";
import { entryScale } from "../scales";

interface Props {
  rows: { name: string; note: string; head: DeskHead }[];
  sand: boolean;
  entryMm: number;
  spreadMm: number;
  whose: string;
  focus: number;
  onFocus: (index: number) => void;
}

const BELL = 46;
const ROW = 26;
/** Room for the figure of a window's end before its band, and for the shares after it. */
const FIGURE = 46;
const SHARES = 104;
/** The share of the room that names and figures may take at the most; a longer name is cut, and read out whole. */
const MOST_LEFT = 0.6;

/** One band a candidate on the ruler above, this player's own entries over it, and the share that falls inside. */
export function StrikeWindows({ rows, sand, entryMm, spreadMm, whose, focus, onFocus }: Props) {
  const spread = Math.max(spreadMm, 1);
  const points = Array.from({ length: 61 }, (_, i) => entryMm + ((i - 30) / 30) * 3 * spread);
  // two lines of words above the bell where there is no room for them side by side
  const topOf = (width: number) => (width < NARROW ? BELL + 36 : BELL);
  // the pass above looks closer on a narrow screen: there the bands have a ruler of their own
  const rulerOf = (width: number) => (width < NARROW ? RULER_HEIGHT : 0);
  return (
    <Picture
      height={(width) => topOf(width) + rulerOf(width) + rows.length * ROW + 2}
      role="group"
      aria-label="Strike windows"
    >
      {(width) => {
        const x = entryScale(sand, width);
        const top = topOf(width);
        const names = Math.max(...rows.map((row) => nameWidth(row.name, noteOf(row, width))), 0);
        const left = Math.min(names + FIGURE, MOST_LEFT * (width - SHARES));
        const bell = area<number>()
          .x((v) => x(v))
          .y0(top)
          .y1((v) => top - 38 * Math.exp(-0.5 * ((v - entryMm) / spread) ** 2))
          .curve(curveBasis);
        return (
          <>
            <path d={bell(points) ?? ""} fill="var(--gorse-soft)" stroke="var(--gorse-ink)" />
            <text x={12} y={18} fontSize={12} style={{ fill: "var(--ink-2)" }}>
              {whose}: {plain(Math.abs(entryMm))} {entryMm <= 0 ? "behind" : "ahead"}, spread {plain(spreadMm)}
            </text>
            <text
              x={width - 12}
              y={width < NARROW ? 35 : 18}
              fontSize={12}
              textAnchor="end"
              style={{ fill: "var(--ink-2)" }}
            >
              entries inside · strikes that come off
            </text>
            {width < NARROW && (
              <g transform={`translate(0 ${top})`}>
                <EntryRuler width={width} x={x} />
              </g>
            )}
            {rows.map((row, i) => (
              <Band
                key={row.name + i}
                row={row}
                x={x}
                left={left}
                width={width}
                y={top + rulerOf(width) + i * ROW}
                on={i === focus}
                onFocus={() => onFocus(i)}
              />
            ))}
          </>
        );
      }}
    </Picture>
  );
}

interface BandProps {
  row: Props["rows"][number];
  x: (mm: number) => number;
  /** Where every band begins at the earliest: names and figures stand before it. */
  left: number;
  width: number;
  y: number;
  on: boolean;
  onFocus: () => void;
}

function Band({ row, x, left, width, y, on, onFocus }: BandProps) {
  const { window, inside_share, expected_quality } = row.head;
  const low = window.low_mm;
  const high = window.high_mm;
  const note = noteOf(row, width);
  const right = width - SHARES;
  const farther = low !== null && x(low) < left;
  const from = low === null || farther ? left : x(low);
  const to = high === null ? from : window.open_ahead ? right : Math.min(x(high), right);
  const cutAhead = window.open_ahead ? "open ›" : high !== null && x(high) > right ? `${plain(Math.abs(high))} ›` : "";
  const words =
    low === null
      ? `${row.name}: no entry plays`
      : `${row.name}: window from ${plain(low)} ${window.open_ahead ? "millimetres on, open ahead" : `to ${plain(high ?? 0)} millimetres`}, ${showPercent(inside_share)} of entries inside, quality ${plain(100 * expected_quality)}`;
  return (
    <g
      transform={`translate(0 ${y})`}
      tabIndex={0}
      role="img"
      aria-label={words}
      onMouseEnter={onFocus}
      onFocus={onFocus}
    >
      <rect width={width} height={ROW} fill={on ? "var(--paper)" : "transparent"} />
      <line x2={width} stroke="var(--line)" />
      {low !== null && (
        <>
          {from < right && to >= from && (
            <rect x={from} y={7} width={Math.max(to - from, 2)} height={12} fill={on ? "var(--ink)" : "var(--rung)"} />
          )}
          {!farther && from < right && <line x1={from} x2={from} y1={3} y2={23} stroke="var(--ink)" strokeWidth={2} />}
          {!window.open_ahead && to > from && to < right && (
            <line x1={to} x2={to} y1={3} y2={23} stroke="var(--ink)" strokeWidth={2} />
          )}
          {cutAhead && to - from > END_ROOM && (
            <text
              x={to - 6}
              y={17}
              fontSize={11.5}
              textAnchor="end"
              style={{ fill: on ? "var(--paper)" : "var(--ink)" }}
            >
              {cutAhead}
            </text>
          )}
          <text x={Math.min(from, right) - 5} y={17} fontSize={11.5} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
            {farther && "‹ "}
            {plain(Math.abs(low))}
          </text>
        </>
      )}
      <text x={NAME_AT} y={18} fontSize={13} fontWeight={on ? 650 : 500}>
        {cut(row.name, left - FIGURE - nameWidth("", note))}{" "}
        <tspan fontSize={12} fontWeight={400} style={{ fill: "var(--ink-2)" }}>
          {note}
        </tspan>
      </text>
      <text x={width - 60} y={18} fontSize={14} fontWeight={650} textAnchor="end">
        {showPercent(inside_share)}
      </text>
      <text x={width - 12} y={18} fontSize={13} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
        {showPercent(expected_quality)}
      </text>
    </g>
  );
}

const NAME_AT = 12;
/** What a band needs to say within itself where it ends ahead of the picture. */
const END_ROOM = 48;
const noteOf = (row: Props["rows"][number], width: number) => (width < NARROW ? "" : row.note);
const LETTER = 7.4;
const nameWidth = (text: string, note: string) => NAME_AT + LETTER * text.length + 6.3 * note.length;
const cut = (name: string, room: number) =>
  LETTER * name.length <= room + 0.1 ? name : `${name.slice(0, Math.max(Math.floor(room / LETTER) - 1, 1))}…`;
