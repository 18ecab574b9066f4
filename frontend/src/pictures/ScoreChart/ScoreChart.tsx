const SHOWN = 12;
const WIDTH = 260; // of the narrowest page, so that its figures are never shrunk
const WIDEST = 360;
const HIGH = 90;

interface Props {
  name: string;
  count: number;
  mark: number;
  scores: readonly { score: number }[];
}

/** What was scored at a drill, oldest first, with the line to pass. */
export function ScoreChart({ name, count, mark, scores }: Props) {
  const last = scores.slice(-SHOWN);
  if (last.length === 0) return null;
  const up = (score: number) => (score / count) * HIGH;
  const width = WIDTH / SHOWN;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 120`}
      role="img"
      className="chart"
      width="100%"
      style={{ maxWidth: WIDEST }}
      aria-label={`${name}: ${last.map((one) => one.score).join(", ")}; pass ${mark} of ${count}`}
    >
      <path d={`M0 ${110 - up(mark)}H${WIDTH}`} stroke="var(--moss)" strokeDasharray="5 4" />
      {last.map((one, n) => (
        <g key={n}>
          <rect
            x={n * width + 3}
            y={110 - up(one.score)}
            width={width - 6}
            height={up(one.score)}
            fill={one.score >= mark ? "var(--ink)" : "var(--rung)"}
          />
          <text
            x={n * width + width / 2}
            y={106 - up(one.score)}
            textAnchor="middle"
            fontSize={12}
            stroke="var(--chalk)"
            strokeWidth={4}
            style={{ fill: "var(--ink)", paintOrder: "stroke" }}
          >
            {one.score}
          </text>
        </g>
      ))}
    </svg>
  );
}
