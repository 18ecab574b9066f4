import { area, curveBasis } from "d3-shape";
import type { DeskHead } from "../../desk/useDesk";
import { plain, showPercent } from "../../units/units";
import { entryScale, RULER_WIDTH } from "../ruler";

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
  const x = entryScale(sand);
  const spread = Math.max(spreadMm, 1);
  const points = Array.from({ length: 61 }, (_, i) => entryMm + ((i - 30) / 30) * 3 * spread);
  const bell = area<number>()
    .x((v) => x(v))
    .y0(BELL)
    .y1((v) => BELL - 38 * Math.exp(-0.5 * ((v - entryMm) / spread) ** 2))
    .curve(curveBasis);
  return (
    <svg
      viewBox={`0 0 ${RULER_WIDTH} ${BELL + rows.length * ROW + 2}`}
      width="100%"
      role="group"
      aria-label="Strike windows"
      style={{ display: "block" }}
    >
      <path d={bell(points) ?? ""} fill="var(--gorse-soft)" stroke="var(--gorse-ink)" />
      <text x={12} y={18} fontSize={12} style={{ fill: "var(--ink-2)" }}>
        {whose}: {plain(Math.abs(entryMm))} {entryMm <= 0 ? "behind" : "ahead"}, spread {plain(spreadMm)}
      </text>
      <text x={RULER_WIDTH - 12} y={18} fontSize={12} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
        entries inside · strikes that come off
      </text>
      {rows.map((row, i) => (
        <Band key={row.name + i} row={row} x={x} y={BELL + i * ROW} on={i === focus} onFocus={() => onFocus(i)} />
      ))}
    </svg>
  );
}

interface BandProps {
  row: Props["rows"][number];
  x: (mm: number) => number;
  y: number;
  on: boolean;
  onFocus: () => void;
}

function Band({ row, x, y, on, onFocus }: BandProps) {
  const { window, inside_share, expected_quality } = row.head;
  const low = window.low_mm;
  const high = window.high_mm;
  const from = low === null ? 0 : Math.max(x(low), 0);
  const to = high === null ? 0 : window.open_ahead ? RULER_WIDTH : Math.min(x(high), RULER_WIDTH);
  const words =
    low === null
      ? `${row.name}: no entry plays`
      : `${row.name}: window from ${plain(low)} to ${window.open_ahead ? "open ahead" : `${plain(high ?? 0)}`} millimetres, ${showPercent(inside_share)} of entries inside, quality ${plain(100 * expected_quality)}`;
  return (
    <g
      transform={`translate(0 ${y})`}
      tabIndex={0}
      role="img"
      aria-label={words}
      onMouseEnter={onFocus}
      onFocus={onFocus}
    >
      <rect width={RULER_WIDTH} height={ROW} fill={on ? "var(--paper)" : "transparent"} />
      <line x2={RULER_WIDTH} stroke="var(--line)" />
      {low !== null && (
        <>
          <rect x={from} y={7} width={Math.max(to - from, 2)} height={12} fill={on ? "var(--ink)" : "var(--rung)"} />
          <line x1={from} x2={from} y1={3} y2={23} stroke="var(--ink)" strokeWidth={2} />
          {!window.open_ahead && <line x1={to} x2={to} y1={3} y2={23} stroke="var(--ink)" strokeWidth={2} />}
          {low > -112 && (
            <text x={from - 5} y={17} fontSize={11.5} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
              {plain(Math.abs(low))}
            </text>
          )}
        </>
      )}
      <Label x={12} text={row.name} bold={on} note={row.note} />
      <rect x={RULER_WIDTH - 104} y={1} width={104} height={ROW - 1} fill={on ? "var(--paper)" : "var(--chalk)"} />
      <text x={RULER_WIDTH - 60} y={18} fontSize={14} fontWeight={650} textAnchor="end">
        {showPercent(inside_share)}
      </text>
      <text x={RULER_WIDTH - 12} y={18} fontSize={13} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
        {showPercent(expected_quality)}
      </text>
    </g>
  );
}

/** A name over whatever is behind it. */
function Label({ x, text, note, bold }: { x: number; text: string; note: string; bold: boolean }) {
  const width = 12 + 7.2 * text.length + 5.8 * note.length;
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
