import { lowest, outlinePath, type Point } from "../outline";

interface Props {
  outline: readonly Point[];
  width: number;
  height: number;
}

/** A head's own section at true angles, resting on the ground. Decorative: the figures stand beside it. */
export function SoleIcon({ outline, width, height }: Props) {
  const scale = (height - 6) / 34;
  const low = lowest(outline);
  return (
    <svg width={width} height={height} aria-hidden style={{ display: "block" }}>
      <line x1={0} x2={width} y1={height - 4.5} y2={height - 4.5} stroke="var(--grass)" strokeWidth={1.2} />
      <path
        d={outlinePath(outline)}
        transform={`translate(${width * 0.68} ${height - 5 + low * scale}) scale(${scale} ${-scale})`}
        fill="var(--steel)"
        stroke="var(--steel-line)"
        strokeWidth={1.3 / scale}
        strokeLinejoin="round"
      />
    </svg>
  );
}
