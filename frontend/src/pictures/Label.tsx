import type { SVGProps } from "react";

/** Text on a drawing with the ground's colour around it, drawn under the whole text so that no letter cuts another. */
export function Label({ halo = 4, children, style, ...text }: SVGProps<SVGTextElement> & { halo?: number }) {
  return (
    <>
      <g aria-hidden="true">
        <text {...text} stroke="var(--chalk)" strokeWidth={halo} strokeLinejoin="round">
          {children}
        </text>
      </g>
      <text {...text} style={style}>
        {children}
      </text>
    </>
  );
}
