import type { Cell } from "../../api/client";
import { type DistanceUnit, inDistance, metres, plain } from "../../units/units";
import { Label } from "../Label";

/** Pixels of a row of rungs. */
export const ROW = 46;

/** By which a rung is known: club, loft and swing. */
export const cellKey = (cell: { club: string; loft_deg: number; swing: string }) =>
  `${cell.club}|${cell.loft_deg}|${cell.swing}`;

interface MarkProps {
  cell: Cell;
  x: number;
  half: number;
  y: number;
  unit: DistanceUnit;
  place: number;
  isPinned: boolean;
  onFocus: (key: string | null) => void;
  onPin?: (key: string) => void;
}

/** A rung: the bar is one ball's spread at true scale, full where measured, an outline where modelled, dotted where assumed. */
export function RungMark({ cell, x, half, y, unit, place, isPinned, onFocus, onPin }: MarkProps) {
  const carry = plain(inDistance(metres(cell.carry_m), unit));
  const measured = cell.source === "measured";
  const words = `${cell.name}, ${cell.swing_name}: carries ${carry}\u00a0${unit}, ${cell.source}, one ball within ${plain(inDistance(metres(cell.spread_m), unit), 1)}\u00a0${unit}`;
  return (
    <g
      transform={`translate(${x} ${y})`}
      tabIndex={0}
      role="button"
      aria-pressed={isPinned}
      onMouseEnter={() => onFocus(cellKey(cell))}
      onFocus={() => onFocus(cellKey(cell))}
      onMouseLeave={() => onFocus(null)}
      onBlur={() => onFocus(null)}
      onClick={() => onPin?.(cellKey(cell))}
      onKeyDown={(event) => {
        if (event.key !== "Enter" && event.key !== " ") return;
        event.preventDefault();
        onPin?.(cellKey(cell));
      }}
      style={{ outlineOffset: 1, cursor: onPin ? "pointer" : undefined }}
    >
      <title>{words}</title>
      <rect x={-Math.max(half, 22)} y={1} width={2 * Math.max(half, 22)} height={ROW - 2} fill="transparent" />
      <rect
        x={-half}
        y={18}
        width={2 * half}
        height={9}
        fill={place ? "var(--ink)" : measured ? "var(--rung)" : "var(--chalk)"}
        stroke={measured ? "none" : "var(--line-2)"}
        strokeDasharray={cell.source === "assumed" ? "1 3" : "4 2"}
      />
      <line y1={15} y2={30} stroke={place ? "var(--gorse)" : "var(--ink)"} strokeWidth={2} />
      <Label y={13} fontSize={13} fontWeight={650}>
        {carry}
      </Label>
      <Label y={41} fontSize={11} style={{ fill: "var(--ink-2)" }}>
        {cell.swing_name}
      </Label>
    </g>
  );
}
