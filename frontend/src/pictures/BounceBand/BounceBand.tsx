import { scaleLinear } from "d3-scale";

interface Props {
  value: number;
  low: number;
  high: number;
}

const x = scaleLinear([-6, 26], [2, 98]).clamp(true);

/** Delivered bounce as a mark against the band that the ground asks for, degrees from −6 to 26. Figures stand beside it. */
export function BounceBand({ value, low, high }: Props) {
  const inside = value >= low && value <= high;
  return (
    <svg width={100} height={18} aria-hidden style={{ display: "block" }}>
      <line x1={2} x2={98} y1={9} y2={9} stroke="var(--line)" />
      <line x1={x(0)} x2={x(0)} y1={3} y2={15} stroke="var(--line-2)" />
      <rect x={x(low)} y={4} width={Math.max(x(high) - x(low), 1)} height={10} fill="var(--rung)" />
      <path d={`M${x(value)} 1l4 8l-4 8l-4 -8z`} fill={inside ? "var(--ink)" : "var(--rust)"} />
    </svg>
  );
}
