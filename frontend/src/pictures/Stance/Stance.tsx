import { radius_mm as BALL } from "../../api/ball.json";
import { lowest, outlinePath, type Point, pitched } from "../outline";

interface StanceProps {
  /** From the middle of the stance towards the target [mm]. */
  ball: number;
  /** Between the heels [mm]. */
  width: number;
  /** To the target's left [degrees]. */
  open: number;
  hand: "right" | "left";
  words: string;
}

const VIEW = { width: 220, height: 150 };
const SCALE = 0.24;
const FEET = 100;
const FOOT = { width: 20, length: 54 };

/**
 * Ball, feet and line to the target from above; the target is at the right. A right-hander has it at their left hand, so
 * they stand above the line and face down the picture; a left-hander stands below it.
 */
export function Stance({ ball, width, open, hand, words }: StanceProps) {
  // from the line to the feet, down the picture
  const side = hand === "right" ? -1 : 1;
  const middle = VIEW.width / 2;
  const half = (width / 2) * SCALE;
  const at = side > 0 ? FEET : VIEW.height - FEET;
  const line = side > 0 ? 26 : VIEW.height - 26;
  const foot = (x: number, dark: boolean) => (
    <rect
      x={middle + x - FOOT.width / 2}
      y={at - FOOT.length / 2}
      width={FOOT.width}
      height={FOOT.length}
      rx={FOOT.width / 2}
      fill={dark ? "var(--ink)" : "var(--steel)"}
      stroke="var(--ink)"
    />
  );
  return (
    <svg
      viewBox={`0 0 ${VIEW.width} ${VIEW.height}`}
      width={VIEW.width}
      height={VIEW.height}
      role="img"
      aria-label={words}
    >
      <path d={`M8 ${line}H206M198 ${line - 5}l8 5l-8 5`} fill="none" stroke="var(--ink)" strokeWidth={1.4} />
      <path
        d={`M${middle} ${line + side * 14}V${at - side * (FOOT.length / 2 + 4)}`}
        stroke="var(--gorse)"
        strokeWidth={2}
        strokeDasharray="4 4"
      />
      <circle cx={middle + ball * SCALE} cy={line} r={6} fill="var(--paper)" stroke="var(--ink)" strokeWidth={1.6} />
      <g transform={`rotate(${-open} ${middle} ${at})`}>
        {foot(-half - 8, false)}
        {foot(half + 8, true)}
      </g>
    </svg>
  );
}

interface AtBallProps {
  outline: readonly Point[];
  lean: number;
  /** The player's own lean [degrees], drawn thin where it is another. */
  own: number;
  words: string;
}

const SHAFT = 46;

/** The club at the ball from the side, target at the right: the handle as it is to be, and where the player has it. */
export function ClubAtBall({ outline, lean, own, words }: AtBallProps) {
  const here = pitched(outline, lean);
  const rest = lowest(here);
  const shaft = (angle: number) => {
    const turn = (angle * Math.PI) / 180;
    return `M-13 10l${(SHAFT * Math.sin(turn)).toFixed(1)} ${(SHAFT * Math.cos(turn)).toFixed(1)}`;
  };
  return (
    <svg viewBox="-48 -62 106 72" width={220} height={150} role="img" aria-label={words}>
      <g transform="scale(1 -1)">
        <rect x={-48} y={-10} width={106} height={10} fill="var(--grass)" opacity={0.35} />
        <g transform={`translate(0 ${-rest})`}>
          <path d={outlinePath(here)} fill="var(--steel)" stroke="var(--steel-line)" strokeWidth={0.8} />
        </g>
        {Math.abs(own - lean) >= 1 && (
          <path d={shaft(own)} fill="none" stroke="var(--rust)" strokeWidth={1} strokeDasharray="3 2" />
        )}
        <path d={shaft(lean)} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
        <circle cx={BALL + 3} cy={BALL} r={BALL} fill="var(--paper)" stroke="var(--ink)" strokeWidth={0.9} />
      </g>
    </svg>
  );
}
