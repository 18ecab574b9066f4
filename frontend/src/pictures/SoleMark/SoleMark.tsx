import { scaleLinear } from "d3-scale";
import type { KeyboardEvent } from "react";

interface Props {
  /** Width of the sole, front to back [mm]. */
  width: number;
  hand: "right" | "left";
  /** The mark: behind the leading edge, and from the sole's middle towards the toe [mm]; null while there is none. */
  mark: { back: number; toe: number } | null;
  onMark: (back: number, toe: number) => void;
}

const LENGTH = 74;
const SIZE = 250;
const BAND = 92;
const EDGE = 22;

/** The sole from below, leading edge up: a press or the arrow keys say where the ground marked it. */
export function SoleMark({ width, hand, mark, onMark }: Props) {
  // from below, with the leading edge up, the toe of a right-hander's club points left
  const left = hand === "right" ? "toe" : "heel";
  const y = scaleLinear([0, 32], [EDGE, EDGE + BAND]);
  const deep = y(width) - y(0);
  const put = (back: number, to: number) =>
    onMark(Math.round(Math.min(Math.max(back, 0), width)), Math.round(Math.min(Math.max(to, -LENGTH / 2), LENGTH / 2)));
  const keys = (event: KeyboardEvent) => {
    const now = mark ?? { back: width / 2, toe: 0 };
    const side = left === "toe" ? 1 : -1;
    if (event.key === "ArrowUp") put(now.back - 1, now.toe);
    else if (event.key === "ArrowDown") put(now.back + 1, now.toe);
    else if (event.key === "ArrowLeft") put(now.back, now.toe + side);
    else if (event.key === "ArrowRight") put(now.back, now.toe - side);
    else return;
    event.preventDefault();
  };
  const at = mark && { x: left === "toe" ? SIZE / 2 - scaled(mark.toe) : SIZE / 2 + scaled(mark.toe), y: y(mark.back) };
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${EDGE + deep + 8}`}
      width={SIZE}
      role="group"
      tabIndex={0}
      aria-label={`Mark on the sole${mark ? `: ${mark.back}\u00a0mm behind the edge, ${Math.abs(mark.toe)}\u00a0mm towards the ${mark.toe >= 0 ? "toe" : "heel"}` : ""}`}
      style={{ cursor: "crosshair", touchAction: "manipulation" }}
      onKeyDown={keys}
      onClick={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        const px = ((event.clientX - box.left) * SIZE) / box.width;
        const py = ((event.clientY - box.top) * SIZE) / box.width;
        const towards = (left === "toe" ? SIZE / 2 - px : px - SIZE / 2) / PER_MM;
        put(y.invert(py), towards);
      }}
    >
      <text x={2} y={14} fontSize={12} style={{ fill: "var(--ink-2)" }}>
        {left}
      </text>
      <text x={SIZE / 2} y={14} fontSize={12} textAnchor="middle" style={{ fill: "var(--ink-2)" }}>
        leading edge
      </text>
      <text x={SIZE - 2} y={14} fontSize={12} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
        {left === "toe" ? "heel" : "toe"}
      </text>
      <rect x={10} y={EDGE} width={SIZE - 20} height={deep} rx={14} fill="var(--paper)" stroke="var(--ink)" />
      <line x1={22} x2={SIZE - 22} y1={EDGE} y2={EDGE} stroke="var(--ink)" strokeWidth={3} />
      {[10, 20]
        .filter((mm) => mm < width)
        .map((mm) => (
          <line key={mm} x1={16} x2={SIZE - 16} y1={y(mm)} y2={y(mm)} stroke="var(--line)" strokeDasharray="2 4" />
        ))}
      {at && <ellipse cx={at.x} cy={at.y} rx={16} ry={7} fill="var(--gorse)" stroke="var(--ink)" />}
    </svg>
  );
}

const PER_MM = (SIZE - 24) / LENGTH;
const scaled = (mm: number) => mm * PER_MM;
