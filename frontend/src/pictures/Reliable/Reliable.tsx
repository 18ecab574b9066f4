import { scaleLinear } from "d3-scale";
import type { Schemas } from "../../api/client";
import { showPercent } from "../../units/units";
import { Picture } from "../Picture";

const SIZE = 230;
const EDGE = 38;

/** Expected chance against what came: on the line the model was as sure as it should be. */
export function Reliable({ stretches }: { stretches: readonly Schemas["ReliableOut"][] }) {
  const most = Math.max(1, ...stretches.map(({ shots }) => shots));
  return (
    <Picture height={SIZE} role="img" aria-label="Expected chance of a clean strike against the share that came">
      {(width) => {
        const x = scaleLinear([0, 1], [EDGE + 6, Math.min(width - 16, 560)]);
        const y = scaleLinear([0, 1], [SIZE - 30, 12]);
        const ticks = [0, 0.5, 1];
        return (
          <>
            <line x1={x(0)} y1={y(0)} x2={x(1)} y2={y(1)} stroke="var(--line-2)" strokeDasharray="5 4" />
            {ticks.map((tick) => (
              <g key={tick}>
                <line x1={x(0)} x2={x(1)} y1={y(tick)} y2={y(tick)} stroke="var(--line)" />
                <text x={EDGE} y={y(tick) + 4} fontSize={12} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
                  {showPercent(tick)}
                </text>
                <text x={x(tick)} y={SIZE - 12} fontSize={12} textAnchor="middle" style={{ fill: "var(--ink-2)" }}>
                  {tick === 0.5 ? "expected" : showPercent(tick)}
                </text>
              </g>
            ))}
            {stretches.map((one) => (
              <g key={one.low}>
                <line
                  x1={x(one.expected)}
                  x2={x(one.expected)}
                  y1={y(one.came_low)}
                  y2={y(one.came_high)}
                  stroke="var(--ink)"
                  strokeWidth={2}
                />
                <circle
                  cx={x(one.expected)}
                  cy={y(one.came)}
                  r={4 + 7 * Math.sqrt(one.shots / most)}
                  fill="var(--gorse)"
                  stroke="var(--ink)"
                />
              </g>
            ))}
            <text x={x(0) + 6} y={24} fontSize={12} style={{ fill: "var(--ink-2)" }}>
              came
            </text>
          </>
        );
      }}
    </Picture>
  );
}
