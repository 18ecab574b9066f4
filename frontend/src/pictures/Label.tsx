import type { CSSProperties, ReactNode } from "react";

interface Props {
  x?: number;
  y?: number;
  fontSize: number;
  fontWeight?: number;
  style?: CSSProperties;
  children: ReactNode;
}

/** Text in the middle of its place, with the ground's colour around it, drawn under the whole text so that no letter cuts another. */
export function Label({ x, y, fontSize, fontWeight, style, children }: Props) {
  return (
    <>
      {/* biome-ignore lint/a11y/noAriaHiddenOnFocusable: a text of a drawing takes no focus, and is to be read out once */}
      <text
        aria-hidden="true"
        x={x}
        y={y}
        fontSize={fontSize}
        fontWeight={fontWeight}
        textAnchor="middle"
        stroke="var(--chalk)"
        strokeWidth={4}
        strokeLinejoin="round"
      >
        {children}
      </text>
      <text x={x} y={y} fontSize={fontSize} fontWeight={fontWeight} textAnchor="middle" style={style}>
        {children}
      </text>
    </>
  );
}
