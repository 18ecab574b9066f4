import { scaleLinear, scalePoint } from "d3-scale";
import type { Schemas } from "../../api/client";
import { plain } from "../../units/units";
import { Picture } from "../Picture";

const HEIGHT = 190;
const LEFT = 52;
/** Pixels that a month's name needs. */
const ROOM = 52;

/** Strokes a shot more than expected, month by month, with 8 of 10. */
export function Years({ months }: { months: readonly Schemas["LineOut"][] }) {
  const most = Math.max(0.2, ...months.map(({ seen }) => Math.max(Math.abs(seen.low), Math.abs(seen.high))));
  return (
    <Picture
      height={HEIGHT}
      role="img"
      aria-label="Strokes a shot more than expected, by month; the table has the numbers"
    >
      {(width) => {
        const x = scalePoint(
          months.map(({ key }) => key),
          [LEFT + 24, Math.min(width - 24, LEFT + 70 * months.length)],
        );
        const y = scaleLinear([-most, most], [HEIGHT - 30, 14]);
        const every = Math.max(1, Math.ceil((months.length * ROOM) / (width - LEFT)));
        return (
          <>
            {[-most, 0, most].map((tick) => (
              <g key={tick}>
                <line
                  x1={LEFT}
                  x2={width - 8}
                  y1={y(tick)}
                  y2={y(tick)}
                  stroke={tick === 0 ? "var(--line-2)" : "var(--line)"}
                />
                <text x={LEFT - 6} y={y(tick) + 4} fontSize={12} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
                  {tick > 0 ? "+" : ""}
                  {plain(tick, 1)}
                </text>
              </g>
            ))}
            {months.map(({ key, seen }, n) => (
              <g key={key} transform={`translate(${x(key) ?? 0} 0)`}>
                <line y1={y(seen.low)} y2={y(seen.high)} stroke="var(--ink)" strokeWidth={2} />
                <circle cy={y(seen.difference)} r={5} fill="var(--gorse)" stroke="var(--ink)" />
                {n % every === 0 && (
                  <text y={HEIGHT - 10} fontSize={12} textAnchor="middle" style={{ fill: "var(--ink-2)" }}>
                    {key}
                  </text>
                )}
              </g>
            ))}
          </>
        );
      }}
    </Picture>
  );
}
