import { area, curveBasis } from "d3-shape";
import type { DeskHead } from "../../desk/useDesk";
import { plain, showPercent } from "../../units/units";
import { NARROW, Picture } from "../Picture";
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

/** One band a candidate on the ruler above, this player's own entries over it, and the share that falls inside. */
export function StrikeWindows({ rows, sand, entryMm, spreadMm, whose, focus, onFocus }: Props) {
  const spread = Math.max(spreadMm, 1);
  const points = Array.from({ length: 61 }, (_, i) => entryMm + ((i - 30) / 30) * 3 * spread);
  // two lines of words above the bell where there is no room for them side by side
  const topOf = (width: number) => (width < NARROW ? BELL + 36 : BELL);
  return (
    <Picture height={(width) => topOf(width) + rows.length * ROW + 2} role="group" aria-label="Strike windows">
      {(width) => {
        const x = entryScale(sand, width);
        const top = topOf(width);
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
            {rows.map((row, i) => (
              <Band
                key={row.name + i}
                row={row}
                x={x}
                width={width}
                y={top + i * ROW}
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
  width: number;
  y: number;
  on: boolean;
  onFocus: () => void;
}

function Band({ row, x, width, y, on, onFocus }: BandProps) {
  const { window, inside_share, expected_quality } = row.head;
  const low = window.low_mm;
  const high = window.high_mm;
  const from = low === null ? 0 : Math.max(x(low), 0);
  const to = high === null ? 0 : window.open_ahead ? width : Math.min(x(high), width);
  const note = width < NARROW ? "" : row.note;
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
          <rect x={from} y={7} width={Math.max(to - from, 2)} height={12} fill={on ? "var(--ink)" : "var(--rung)"} />
          <line x1={from} x2={from} y1={3} y2={23} stroke="var(--ink)" strokeWidth={2} />
          {!window.open_ahead && <line x1={to} x2={to} y1={3} y2={23} stroke="var(--ink)" strokeWidth={2} />}
          {from > 44 + nameWidth(row.name, note) && (
            <text x={from - 5} y={17} fontSize={11.5} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
              {plain(Math.abs(low))}
            </text>
          )}
        </>
      )}
      <Label x={12} text={row.name} bold={on} note={note} />
      <rect x={width - 104} y={1} width={104} height={ROW - 1} fill={on ? "var(--paper)" : "var(--chalk)"} />
      <text x={width - 60} y={18} fontSize={14} fontWeight={650} textAnchor="end">
        {showPercent(inside_share)}
      </text>
      <text x={width - 12} y={18} fontSize={13} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
        {showPercent(expected_quality)}
      </text>
    </g>
  );
}

const nameWidth = (text: string, note: string) => 14 + 7.4 * text.length + 6.3 * note.length;

/** A name over whatever is behind it. */
function Label({ x, text, note, bold }: { x: number; text: string; note: string; bold: boolean }) {
  const width = nameWidth(text, note);
  return (
    <>
      <rect x={x - 6} y={3} width={width} height={20} fill={bold ? "var(--paper)" : "var(--chalk)"} opacity={0.92} />
      <text x={x} y={18} fontSize={13} fontWeight={bold ? 650 : 500}>
        {text}{" "}
        <tspan fontSize={12} fontWeight={400} style={{ fill: "var(--ink-2)" }}>
          {note}
        </tspan>
      </text>
    </>
  );
}
