import { useMergedRef, useResizeObserver } from "@mantine/hooks";
import { type ReactNode, type SVGProps, useLayoutEffect, useRef, useState } from "react";

/** Width for which a picture is laid out where nothing is measured. */
const USUAL = 906;
const LEAST = 240;

/** Narrower than this a picture has fewer marks, and its words under each other. */
export const NARROW = 600;

interface Props extends Omit<SVGProps<SVGSVGElement>, "height" | "children" | "width"> {
  height: number | ((width: number) => number);
  children: (width: number) => ReactNode;
}

/** A drawing laid out for the width that it has: one unit is one pixel, so that no text is ever shrunk. */
export function Picture({ height, children, style, ...svg }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const [observe, { width: now }] = useResizeObserver<HTMLDivElement>();
  const ref = useMergedRef(frame, observe);
  // measured before it is seen: the observer tells two frames later, and until then its text would have another size
  const [first, setFirst] = useState<number | null>(null);
  useLayoutEffect(() => setFirst(frame.current?.getBoundingClientRect().width ?? 0), []);
  const found = now || first;
  const width = found ? Math.max(Math.floor(found), LEAST) : USUAL;
  const tall = typeof height === "number" ? height : height(width);
  return (
    <div ref={ref} style={{ minWidth: 0, overflow: "hidden" }}>
      <svg {...svg} viewBox={`0 0 ${width} ${tall}`} width="100%" height={tall} style={{ display: "block", ...style }}>
        {found !== null && children(width)}
      </svg>
    </div>
  );
}

interface LabelPlace {
  y: number;
}

/** Labels one below the other, each where it wants to be or just under the one before. */
export function apart<T extends LabelPlace>(labels: readonly T[], room = 14): T[] {
  let last = Number.NEGATIVE_INFINITY;
  return [...labels]
    .sort((a, b) => a.y - b.y)
    .map((label) => {
      last = Math.max(label.y, last + room);
      return { ...label, y: last };
    });
}
