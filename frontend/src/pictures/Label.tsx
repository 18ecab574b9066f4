import type { CSSProperties, ReactNode } from "react";

interface Props {
  x?: number;
  y?: number;
  fontSize: number;
  fontWeight?: number;
  style?: CSSProperties;
  children: ReactNode;
}

/** Text in the middle of its place, with the ground's colour around it. */
export function Label({ x, y, fontSize, fontWeight, style, children }: Props) {
  return (
    <text
      x={x}
      y={y}
      fontSize={fontSize}
      fontWeight={fontWeight}
      textAnchor="middle"
      stroke="var(--chalk)"
      strokeWidth={4}
      strokeLinejoin="round"
      paintOrder="stroke"
      style={style}
    >
      {children}
    </text>
  );
}
