import type { DeskHead } from "../../desk/useDesk";
import { outlinePath, type Point, pitched } from "../outline";

interface ClubProps {
  head: DeskHead;
  x: (mm: number) => number;
  y: (mm: number) => number;
  mm: number;
  tone: "main" | "trail" | "ghost";
  back?: number;
}

/** The head's section where its edge meets the ball, or `back` millimetres earlier along its pass. */
export function Club({ head, x, y, mm, tone, back = 0 }: ClubProps) {
  const at = head.contact_mm ?? head.path_mm.at(-1) ?? [0, 0];
  const [cx = 0, cz = 0] = at;
  let place: Point = [cx, cz, pitchAt(head, cx)];
  if (back > 0) {
    const earlier = head.path_mm.filter(([px = 0]) => px <= cx - back).at(-1);
    if (!earlier) return null;
    place = earlier;
  }
  const [px = 0, pz = 0, pitch = 0] = place;
  const style = {
    main: { fill: "var(--steel)", stroke: "var(--steel-line)", strokeWidth: 1.6 / mm, opacity: 0.95 },
    trail: { fill: "none", stroke: "var(--line-2)", strokeWidth: 1 / mm, opacity: back > 40 ? 0.45 : 0.8 },
    ghost: { fill: "none", stroke: "var(--rust)", strokeWidth: 1.4 / mm, strokeDasharray: `${5 / mm} ${4 / mm}` },
  }[tone];
  return (
    <path
      d={outlinePath(pitched(head.outline_mm, pitch))}
      transform={`translate(${x(px)} ${y(pz)}) scale(${mm} ${-mm})`}
      strokeLinejoin="round"
      {...style}
    />
  );
}

function pitchAt(head: DeskHead, at: number) {
  const near = head.path_mm.reduce<Point | null>(
    (best, row) => (best === null || Math.abs((row[0] ?? 0) - at) < Math.abs((best[0] ?? 0) - at) ? row : best),
    null,
  );
  return near?.[2] ?? 0;
}

/** Where the ball is touched: along the face, or at the edge. */
export function ContactMark({
  head,
  x,
  y,
  ballZ,
}: {
  head: DeskHead;
  x: (v: number) => number;
  y: (v: number) => number;
  ballZ: number;
}) {
  const [cx = 0, cz = 0] = head.contact_mm ?? [];
  let px = cx;
  let pz = cz;
  if (head.strike.contact === "face") {
    const from = Math.hypot(cx, ballZ - cz);
    const up = head.strike.impact_height_mm;
    const out = Math.sqrt(Math.max(from * from - up * up, 0));
    // the foot of the ball's centre on the face: `up` along it, one radius in front
    const angle = Math.atan2(ballZ - cz, -cx) + Math.atan2(out, up);
    px = cx + up * Math.cos(angle);
    pz = cz + up * Math.sin(angle);
  }
  return <circle cx={x(px)} cy={y(pz)} r={5.5} fill="var(--gorse)" stroke="var(--ink)" strokeWidth={1.5} />;
}
