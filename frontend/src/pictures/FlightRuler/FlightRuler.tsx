import { scaleLinear } from "d3-scale";
import type { Recommendation, Rung } from "../../api/client";
import { type DistanceUnit, inDistance, metres, plain } from "../../units/units";

interface Props {
  lofts: Recommendation["lofts"];
  unit: DistanceUnit;
  focus: string | null;
  onFocus: (key: string | null) => void;
}

const WIDTH = 906;
const LEFT = 118;
const SKY = 214;
const RULER = 26;
const ROW = 40;
const SWING_NAME: Record<string, string> = { full: "full", "1030": "10:30", "900": "9:00" };

export const rungKey = (rung: Rung) => `${rung.club}|${rung.swing}`;

/** Flights above, the ruler of carry between, every club and swing as a rung below: one axis for the eye to drop along. */
export function FlightRuler({ lofts, unit, focus, onFocus }: Props) {
  const rungs = lofts.rungs;
  const clubs = [...new Set(rungs.map((r) => r.club))];
  const far = Math.max(...rungs.map((r) => r.carry_m)) * 1.06;
  const x = scaleLinear([0, far], [LEFT, WIDTH - 16]);
  const perMetre = x(1) - x(0);
  const tall = Math.max(...rungs.map((r) => r.apex_m));
  // flights are drawn true to scale unless the sky would not hold them
  const up = Math.min(perMetre, (SKY - 22) / tall);
  const height = SKY + RULER + clubs.length * ROW + 6;
  const shown = inDistance(metres(far), unit);
  const step = shown > 160 ? 20 : 10;
  const ticks = Array.from({ length: Math.floor(shown / step) + 1 }, (_, i) => i * step);
  const tickX = (value: number) => x((value * far) / shown);
  const rowY = (club: string) => SKY + RULER + clubs.indexOf(club) * ROW;
  const path = (rung: Rung) =>
    rung.path_m.map(([d = 0, h = 0], i) => `${i ? "L" : "M"}${x(d).toFixed(1)} ${(SKY - h * up).toFixed(1)}`).join("");
  const gaps = lofts.gaps.map((gap) => {
    const from = rungs.find((r) => r.club === gap.from_club && r.swing === "full");
    const to = rungs.find((r) => r.club === gap.to_club && r.swing === "full");
    return { ...gap, a: from?.carry_m ?? 0, b: to?.carry_m ?? 0 };
  });
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} width="100%" role="group" aria-label="Carry ladder">
      <defs>
        <pattern id="ladder-hole" width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <line x1={0} x2={0} y2={7} stroke="var(--rust)" strokeWidth={1} opacity={0.55} />
        </pattern>
      </defs>
      {[5, 10, 15, 20, 25, 30, 35]
        .filter((h) => h * up < SKY - 12)
        .map((h) => (
          <g key={h}>
            <line x1={LEFT} x2={WIDTH} y1={SKY - h * up} y2={SKY - h * up} stroke="var(--line)" />
            <text x={LEFT - 8} y={SKY - h * up + 4} fontSize={12} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
              {plain(inDistance(metres(h), unit))} {unit}
            </text>
          </g>
        ))}
      {rungs.map((rung) => {
        const on = focus === rungKey(rung);
        const full = rung.swing === "full";
        return (
          <path
            key={rungKey(rung)}
            d={path(rung)}
            fill="none"
            stroke={on ? "var(--ink)" : "var(--rung)"}
            strokeWidth={on ? 3 : full ? 1.6 : 0.9}
            strokeDasharray={full || on ? undefined : "3 3"}
          />
        );
      })}
      {gaps
        .filter((gap) => gap.kind !== "even")
        .map((gap) => (
          <g key={gap.from_club}>
            <rect
              x={x(gap.b)}
              width={Math.max(x(gap.a) - x(gap.b), 2)}
              y={SKY + RULER}
              height={clubs.length * ROW}
              fill={gap.kind === "hole" ? "url(#ladder-hole)" : "none"}
              stroke={gap.kind === "overlap" ? "var(--rust)" : "none"}
              strokeDasharray="2 3"
            />
            <text
              x={(x(gap.a) + x(gap.b)) / 2}
              y={height - 8}
              fontSize={12}
              fontWeight={650}
              textAnchor="middle"
              style={{ fill: "var(--rust)" }}
            >
              {gap.kind} {plain(inDistance(metres(gap.gap_m), unit))} {unit}
            </text>
          </g>
        ))}
      <g transform={`translate(0 ${SKY})`}>
        <rect width={WIDTH} height={RULER} fill="var(--ruler)" />
        <text x={10} y={17} fontSize={12} style={{ fill: "var(--gorse)" }}>
          carry, {unit}
        </text>
        {ticks.map((tick) => (
          <g key={tick} transform={`translate(${tickX(tick)} 0)`}>
            <line y2={6} stroke="var(--on-ruler)" />
            <text y={20} fontSize={12} textAnchor="middle" style={{ fill: "var(--on-ruler)" }}>
              {tick}
            </text>
          </g>
        ))}
      </g>
      {clubs.map((club) => (
        <g key={club} transform={`translate(0 ${rowY(club)})`}>
          <line x1={0} x2={WIDTH} y1={ROW} y2={ROW} stroke="var(--line)" />
          <text x={12} y={ROW / 2 + 5} fontSize={14} fontWeight={600}>
            {club}
          </text>
        </g>
      ))}
      {rungs.map((rung) => (
        <RungMark
          key={rungKey(rung)}
          rung={rung}
          x={x(rung.carry_m)}
          y={rowY(rung.club)}
          label={plain(inDistance(metres(rung.carry_m), unit))}
          unit={unit}
          on={focus === rungKey(rung)}
          onFocus={onFocus}
        />
      ))}
    </svg>
  );
}

interface MarkProps {
  rung: Rung;
  x: number;
  y: number;
  label: string;
  unit: DistanceUnit;
  on: boolean;
  onFocus: (key: string | null) => void;
}

function RungMark({ rung, x, y, label, unit, on, onFocus }: MarkProps) {
  const name = SWING_NAME[rung.swing] ?? rung.swing;
  const full = rung.swing === "full";
  const words = `${rung.club}, ${name}: carries ${label} ${unit}, ${plain(rung.apex_m)} metres high, lands at ${plain(rung.landing_deg)} degrees`;
  return (
    <g
      transform={`translate(${x} ${y})`}
      tabIndex={0}
      role="img"
      aria-label={words}
      onMouseEnter={() => onFocus(rungKey(rung))}
      onFocus={() => onFocus(rungKey(rung))}
      onMouseLeave={() => onFocus(null)}
      onBlur={() => onFocus(null)}
      style={{ outlineOffset: 1 }}
    >
      <rect x={-22} y={2} width={44} height={ROW - 4} fill="transparent" />
      <rect
        x={-13}
        y={17}
        width={26}
        height={8}
        fill={on ? "var(--ink)" : full ? "var(--rung)" : "none"}
        stroke={full ? "none" : "var(--line-2)"}
        strokeDasharray={full ? undefined : "3 2"}
      />
      <line y1={14} y2={28} stroke="var(--ink)" strokeWidth={2} />
      <text y={12} fontSize={13} fontWeight={650} textAnchor="middle">
        {label}
      </text>
      <text y={37} fontSize={10.5} textAnchor="middle" style={{ fill: "var(--ink-2)" }}>
        {name}
      </text>
    </g>
  );
}
