import { scaleLinear } from "d3-scale";
import type { Carries, Cell } from "../../api/client";
import { type DistanceUnit, inDistance, metres, plain } from "../../units/units";
import { Label } from "../Label";
import { NARROW, Picture } from "../Picture";
import { RULER_HEIGHT, Ruler } from "../Ruler";
import { Peak } from "./Peak";
import { cellKey, ROW, RungMark } from "./RungMark";

interface Props {
  carries: Carries;
  unit: DistanceUnit;
  /** The rung under the pointer or the focus, and the one pinned for comparing. */
  focus: string | null;
  pinned: string | null;
  onFocus: (key: string | null) => void;
  onPin?: (key: string) => void;
  /** A distance asked for [m], marked on the ruler; a press on the ruler asks for another. */
  distance?: number | null;
  onDistance?: (metres: number) => void;
}

const LEFT = 124;
const NARROW_LEFT = 92;
const TICK_ROOM = 34;
const MOST_SKY = 176;
const FACED = 30;

/** Flights above, the ruler of carry, how often each distance is faced, and every club with every swing as a rung. */
export function CarryLadder({ carries, unit, focus, pinned, onFocus, onPin, distance, onDistance }: Props) {
  const { cells, rows } = carries;
  const far = Math.max(...cells.map((c) => c.carry_m + c.spread_m)) * 1.03;
  const tall = Math.max(...cells.map((c) => c.apex_m));
  const leftOf = (width: number) => (width < NARROW ? NARROW_LEFT : LEFT);
  // flights are drawn true to scale unless the sky would not hold them
  const upOf = (width: number) => Math.min((width - 14 - leftOf(width)) / far, (MOST_SKY - 20) / tall);
  const skyOf = (width: number) => upOf(width) * tall + 20;
  const drawn = [...cells].sort((a, b) => rank(a) - rank(b));
  function rank(cell: Cell) {
    return cellKey(cell) === focus ? 2 : cellKey(cell) === pinned ? 1 : 0;
  }
  return (
    <Picture
      height={(width) => skyOf(width) + RULER_HEIGHT + FACED + rows.length * ROW + 4}
      role="group"
      aria-label="Carry ladder"
    >
      {(width) => {
        const left = leftOf(width);
        const sky = skyOf(width);
        const top = sky + RULER_HEIGHT + FACED;
        const x = scaleLinear([0, far], [left, width - 14]);
        const up = upOf(width);
        const rowY = (cell: Cell) =>
          top + rows.findIndex((r) => r.code === cell.club && r.loft_deg === cell.loft_deg) * ROW;
        const shown = inDistance(metres(far), unit);
        const by = ((width - left) / shown) * 10 < TICK_ROOM ? 20 : 10;
        const ticks = Array.from({ length: Math.floor(shown / by) + 1 }, (_, i) => i * by);
        const tickX = (value: number) => x((value * far) / shown);
        const line = (cell: Cell) =>
          cell.path_m
            .map(([d = 0, h = 0], i) => `${i ? "L" : "M"}${x(d).toFixed(1)} ${(sky - h * up).toFixed(1)}`)
            .join("");
        const most = Math.max(...carries.faced.map(([, weight = 0]) => weight), 1);
        const facedY = (weight: number) => top - 2 - (weight / most) * (FACED - 8);
        const faced = carries.faced
          .map(([at = 0, weight = 0]) => `L${x(at).toFixed(1)} ${facedY(weight).toFixed(1)}`)
          .join("");
        const first = carries.faced[0]?.[0] ?? 0;
        const last = carries.faced.at(-1)?.[0] ?? 0;
        const heights = [5, 10, 15, 20, 25, 30, 35].filter((h) => h * up < sky - 10 && (5 * up > 15 || h % 10 === 0));
        return (
          <>
            <defs>
              <pattern
                id="ladder-hole"
                width={7}
                height={7}
                patternUnits="userSpaceOnUse"
                patternTransform="rotate(-45)"
              >
                <line x1={0} x2={0} y2={7} stroke="var(--rust)" strokeWidth={1} opacity={0.5} />
              </pattern>
            </defs>
            {heights.map((h) => (
              <g key={h}>
                <line x1={left} x2={width} y1={sky - h * up} y2={sky - h * up} stroke="var(--line)" />
                <text x={left - 8} y={sky - h * up + 4} fontSize={12} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
                  {plain(inDistance(metres(h), unit))}&nbsp;{unit}
                </text>
              </g>
            ))}
            {drawn.map((cell) => {
              const place = rank(cell);
              return (
                <path
                  key={cellKey(cell)}
                  d={line(cell)}
                  fill="none"
                  stroke={place ? "var(--ink)" : "var(--rung)"}
                  strokeWidth={place ? 2.6 : cell.swing === "full" ? 1.5 : 0.9}
                  strokeDasharray={place === 1 ? "7 4" : undefined}
                />
              );
            })}
            {drawn.filter(rank).map((cell) => (
              <Peak
                key={cellKey(cell)}
                cell={cell}
                x={x}
                width={width}
                y={sky - cell.apex_m * up}
                unit={unit}
                above={rank(cell) === 2}
              />
            ))}
            {carries.holes.map((hole) => (
              <g key={hole.low_m}>
                <rect
                  x={x(hole.low_m)}
                  width={x(hole.high_m) - x(hole.low_m)}
                  y={top}
                  height={rows.length * ROW}
                  fill="url(#ladder-hole)"
                />
                {x(hole.high_m) - x(hole.low_m) > 30 && (
                  <Label
                    x={(x(hole.low_m) + x(hole.high_m)) / 2}
                    y={top + 11}
                    fontSize={11}
                    fontWeight={650}
                    style={{ fill: "var(--rust)" }}
                  >
                    hole {plain(inDistance(metres(hole.high_m - hole.low_m), unit))}
                  </Label>
                )}
              </g>
            ))}
            <path d={`M${x(first)} ${top - 2}${faced}L${x(last)} ${top - 2}Z`} fill="var(--gorse-soft)" />
            <text x={12} y={top - 10} fontSize={12} style={{ fill: "var(--ink-2)" }}>
              how often faced
            </text>
            {/* biome-ignore lint/a11y/noStaticElementInteractions: the field "How far is it" does the same from the keyboard */}
            <g
              transform={`translate(0 ${sky})`}
              style={{ cursor: onDistance ? "pointer" : undefined }}
              onClick={(event) => {
                const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
                if (!box || !onDistance) return;
                const at = x.invert(((event.clientX - box.left) * width) / box.width);
                if (at >= 5) onDistance(at);
              }}
            >
              <Ruler width={width} words={`carry, ${unit}`} ticks={ticks} at={tickX} />
              {distance != null && (
                <path d={`M${x(distance) - 8} 0h16l-8 12Z`} fill="var(--gorse)" aria-label="the distance asked for" />
              )}
            </g>
            {rows.map((row, i) => (
              <g key={row.code + row.loft_deg} transform={`translate(0 ${top + i * ROW})`}>
                <line x1={0} x2={width} y1={ROW} y2={ROW} stroke="var(--line)" />
                <text x={12} y={ROW / 2 + 1} fontSize={13.5} fontWeight={600}>
                  {row.name}
                </text>
                <text x={12} y={ROW / 2 + 15} fontSize={11.5} style={{ fill: "var(--ink-2)" }}>
                  {plain(row.loft_deg, Number.isInteger(row.loft_deg) ? 0 : 1)}°
                </text>
              </g>
            ))}
            {carries.cells.map((cell) => (
              <RungMark
                key={cellKey(cell)}
                cell={cell}
                x={x(cell.carry_m)}
                half={Math.max(x(cell.spread_m) - x(0), 4)}
                y={rowY(cell)}
                unit={unit}
                place={rank(cell)}
                isPinned={cellKey(cell) === pinned}
                onFocus={onFocus}
                onPin={onPin}
              />
            ))}
          </>
        );
      }}
    </Picture>
  );
}
