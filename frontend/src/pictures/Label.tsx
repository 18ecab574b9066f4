import type { CSSProperties, ReactNode } from "react";

interface Props {
  x?: number;
  y?: number;
  fontSize: number;
  fontWeight?: number;
  anchor?: "start" | "middle" | "end";
  style?: CSSProperties;
  children: ReactNode;
}

/** Text in the middle of its place, or on one side of it, with the ground's colour around it. */
export function Label({ x, y, fontSize, fontWeight, anchor = "middle", style, children }: Props) {
  return (
    <text
      x={x}
      y={y}
      fontSize={fontSize}
      fontWeight={fontWeight}
      textAnchor={anchor}
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
