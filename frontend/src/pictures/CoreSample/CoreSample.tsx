import { useId } from "react";
import type { Ground } from "../../api/client";
import { surfaceOf } from "../../api/tables";
import { plain } from "../../units/units";

const WIDTH = 200;
const HEIGHT = 172;
const SURFACE = 46;
/** Pixels a millimetre of grass and thatch, and of sand, which is ten times as deep. */
const TURF_MM = 2;
const SAND_MM = 0.62;
const DEEP = HEIGHT - 20 - SURFACE;
/** Figures are drawn as they are typed, also those that no ground has. */
const within = (value: number, most: number) => Math.min(Math.max(value, 0), most);
const HEIGHTS = surfaceOf("turf").picked?.values ?? {};

/** Turf and sand of one ground as two small cores, drawn from the readings; texture and words, not colour alone. */
export function CoreSample({ ground, thatchMm }: { ground: Ground; thatchMm: number }) {
  const { turf, sand } = ground;
  const id = useId();
  const grass = (HEIGHTS[turf.lie] ?? 0) * TURF_MM;
  // a dense core for firm soil: the dots stand closer the harder the hammer stops
  const dot = Math.max(3.4, 11 - turf.firmness_g / 20);
  const mat = within(thatchMm * TURF_MM, DEEP);
  const loose = within(sand.loose_depth_mm * SAND_MM, DEEP);
  const words = `Turf ${plain(turf.firmness_g)}\u00a0g, ${turf.lie.replace("_", " ")} lie; sand ${plain(sand.penetrometer_kg_cm2, 1)}\u00a0kg/cm², ${plain(sand.loose_depth_mm)}\u00a0mm loose.`;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label={words}>
      <defs>
        <pattern id={`soil-${id}`} width={dot} height={dot} patternUnits="userSpaceOnUse">
          <circle cx={dot / 2} cy={dot / 2} r={0.9} fill="var(--soil-dot)" />
        </pattern>
        <pattern id={`sand-${id}`} width={4} height={4} patternUnits="userSpaceOnUse">
          <circle cx={1} cy={1} r={0.6} fill="var(--sand-dot)" />
          <circle cx={3} cy={3} r={0.6} fill="var(--sand-dot)" />
        </pattern>
        <pattern id={`base-${id}`} width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1={0} x2={0} y2={7} stroke="var(--ink-2)" strokeWidth={0.8} />
        </pattern>
      </defs>
      <g transform="translate(4 0)">
        {Array.from({ length: 22 }, (_, i) => (
          <path
            key={i}
            d={`M${2 + i * 4} ${SURFACE}q${(i % 3) - 1} ${-grass / 2} ${((i * 7) % 5) - 2} ${-grass}`}
            stroke="var(--grass)"
            fill="none"
            strokeWidth={1.3}
          />
        ))}
        <rect y={SURFACE} width={90} height={mat} fill="var(--mat)" />
        <rect y={SURFACE + mat} width={90} height={DEEP - mat} fill="var(--soil)" />
        <rect y={SURFACE + mat} width={90} height={DEEP - mat} fill={`url(#soil-${id})`} />
        <Water moisture={turf.moisture} />
        <rect y={SURFACE} width={90} height={DEEP} fill="none" stroke="var(--ink)" />
        <text x={0} y={HEIGHT - 4} fontSize={12}>
          turf <tspan fontWeight={650}>{plain(turf.firmness_g)}</tspan> g
        </text>
      </g>
      <g transform="translate(106 0)">
        <rect y={SURFACE} width={90} height={loose} fill="var(--sand)" />
        <rect y={SURFACE} width={90} height={loose} fill={`url(#sand-${id})`} />
        <rect y={SURFACE + loose} width={90} height={DEEP - loose} fill="var(--base)" />
        <rect y={SURFACE + loose} width={90} height={DEEP - loose} fill={`url(#base-${id})`} />
        <Water moisture={sand.moisture} />
        <rect y={SURFACE} width={90} height={DEEP} fill="none" stroke="var(--ink)" />
        <text x={0} y={SURFACE - 7} fontSize={12} style={{ fill: "var(--ink-2)" }}>
          {plain(sand.loose_depth_mm)}&nbsp;mm loose
        </text>
        <text x={0} y={HEIGHT - 4} fontSize={12}>
          sand <tspan fontWeight={650}>{plain(sand.penetrometer_kg_cm2, 1)}</tspan> kg/cm²
        </text>
      </g>
    </svg>
  );
}

/** Wetness as a column at the edge of the core. */
function Water({ moisture }: { moisture: number }) {
  const height = within(DEEP * moisture, DEEP);
  return (
    <rect
      x={84}
      y={HEIGHT - 20 - height}
      width={6}
      height={height}
      fill="var(--water)"
      stroke="var(--ink)"
      strokeWidth={0.5}
    />
  );
}
