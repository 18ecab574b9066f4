import { scaleLinear } from "d3-scale";
import { plain, trimmed } from "../../units/units";
import { lowest, outlinePath, type Point, pitched } from "../outline";

interface Props {
  outline: readonly Point[];
  ghost?: readonly Point[];
  leanDeg: number;
  loftDeg: number;
  bounceDeg: number;
  edgeMm: number;
  ballHeightMm: number;
  sand: boolean;
}

const WIDTH = 906;
const HEIGHT = 300;
const GROUND = 238;
const RULER = 26;
const BALL = 21.335;

/** The sole at rest on the ground at the delivered lean, beside the ball, at true scale: where the edge stands. */
export function SoleRest(p: Props) {
  const x = scaleLinear([-100, 66], [20, WIDTH - 20]);
  const mm = x(1) - x(0);
  const edgeX = -30;
  const place = (turned: readonly Point[]) =>
    `translate(${x(edgeX)} ${GROUND + lowest(turned) * mm}) scale(${mm} ${-mm})`;
  const head = pitched(p.outline, p.leanDeg);
  const other = p.ghost && pitched(p.ghost, p.leanDeg);
  const ground = p.sand ? "var(--sand)" : "var(--soil)";
  const words = `Delivered loft ${trimmed(p.loftDeg)}, delivered bounce ${trimmed(p.bounceDeg)} degrees, edge ${plain(p.edgeMm, 1)} mm up.`;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label={words}>
      <defs>
        <pattern id="rest-grain" width={p.sand ? 5 : 8} height={p.sand ? 5 : 8} patternUnits="userSpaceOnUse">
          <circle cx={1.5} cy={1.5} r={0.8} fill={p.sand ? "var(--sand-dot)" : "var(--soil-dot)"} />
          <circle cx={4} cy={4} r={0.8} fill={p.sand ? "var(--sand-dot)" : "var(--soil-dot)"} />
        </pattern>
        <clipPath id="rest-clip">
          <rect width={WIDTH} height={HEIGHT - RULER} />
        </clipPath>
      </defs>
      <g clipPath="url(#rest-clip)">
        <rect y={GROUND} width={WIDTH} height={HEIGHT - GROUND} fill={ground} />
        <rect y={GROUND} width={WIDTH} height={HEIGHT - GROUND} fill="url(#rest-grain)" />
        <line x1={x(0)} x2={x(0)} y1={6} y2={HEIGHT} stroke="var(--line-2)" strokeDasharray="2 3" />
        <circle
          cx={x(0)}
          cy={GROUND - (BALL + p.ballHeightMm) * mm}
          r={BALL * mm}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
        {other && (
          <path
            d={outlinePath(other)}
            transform={place(other)}
            fill="none"
            stroke="var(--rust)"
            strokeWidth={1.4 / mm}
            strokeDasharray={`${5 / mm} ${4 / mm}`}
          />
        )}
        <path
          d={outlinePath(head)}
          transform={place(head)}
          fill="var(--steel)"
          stroke="var(--steel-line)"
          strokeWidth={1.6 / mm}
          strokeLinejoin="round"
        />
        <line
          x1={0}
          x2={WIDTH}
          y1={GROUND}
          y2={GROUND}
          stroke={p.sand ? "var(--sand-dot)" : "var(--grass)"}
          strokeWidth={2.5}
        />
        <g stroke="var(--rust)" strokeWidth={2}>
          <line x1={x(edgeX) + 4} x2={x(edgeX) + 4} y1={GROUND} y2={GROUND - p.edgeMm * mm} />
          <line x1={x(edgeX)} x2={x(edgeX) + 30} y1={GROUND - p.edgeMm * mm} y2={GROUND - p.edgeMm * mm} />
        </g>
      </g>
      <g fontSize={15}>
        <text x={20} y={30}>
          delivered loft{" "}
          <tspan fontWeight={650} fontSize={21}>
            {trimmed(p.loftDeg)}°
          </tspan>
        </text>
        <text x={20} y={60}>
          delivered bounce{" "}
          <tspan fontWeight={650} fontSize={21} style={{ fill: p.bounceDeg < 0 ? "var(--rust)" : undefined }}>
            {trimmed(p.bounceDeg)}°
          </tspan>
        </text>
        <text x={20} y={90}>
          edge at rest{" "}
          <tspan fontWeight={650} fontSize={21}>
            {plain(p.edgeMm, 1)} mm
          </tspan>
        </text>
        {p.ghost && (
          <text x={20} y={116} fontSize={13} style={{ fill: "var(--rust)" }}>
            dashed: the head in focus below
          </text>
        )}
      </g>
      <g transform={`translate(0 ${HEIGHT - RULER})`}>
        <rect width={WIDTH} height={RULER} fill="var(--ink)" />
        {[-80, -60, -40, -20, 0, 20, 40, 60].map((tick) => (
          <g key={tick} transform={`translate(${x(tick)} 0)`}>
            <line y2={6} stroke="var(--on-ink)" />
            <text y={20} fontSize={12} textAnchor="middle" style={{ fill: "var(--on-ink)" }}>
              {tick === 0 ? "ball" : Math.abs(tick)}
            </text>
          </g>
        ))}
        <text x={10} y={18} fontSize={12} style={{ fill: "var(--gorse)" }}>
          mm
        </text>
      </g>
    </svg>
  );
}
