import type { ReactNode } from "react";

/** Words are drawn larger than they are to be: a drawing is never shown at less than three quarters of this. */
const WIDTH = 320;
const HEIGHT = 120;
const MIDDLE = 60;

const Ball = ({ x, y = MIDDLE, r = 6 }: { x: number; y?: number; r?: number }) => (
  <circle cx={x} cy={y} r={r} fill="var(--paper)" stroke="var(--ink)" strokeWidth={1.4} />
);
const Words = ({ x, y, children }: { x: number; y: number; children: string }) => (
  <text x={x} y={y} fontSize={15} fill="var(--ink)">
    {children}
  </text>
);
const line = { fill: "none", stroke: "var(--ink)", strokeWidth: 1.6 };
const shaft = { fill: "none", stroke: "var(--ink)", strokeWidth: 3, strokeLinecap: "round" as const };
const dashed = { fill: "none", stroke: "var(--rust)", strokeWidth: 1.6, strokeDasharray: "5 4" };
const brushed = (n: number) => (
  <ellipse key={n} cx={172 + (n % 3) * 6} cy={20 + n * 16} rx={20} ry={4} fill="var(--moss)" />
);

interface Drawn {
  sand?: boolean;
  /** From the side, on the ground line. */
  side?: boolean;
  parts: ReactNode;
  /** Drawn as a right-hander plays it, who stands above; the other way up for a left-hander. */
  handed?: boolean;
  /** Words that stay upright. */
  said?: ReactNode;
  words: string;
}

/** What lies where for each drill; target and swing go to the right. */
const DRAWINGS: Record<string, Drawn> = {
  line: {
    words: "a line across the swing, the grass brushed from it on",
    parts: (
      <>
        <path d="M150 8V112" stroke="var(--paper)" strokeWidth={4} />
        {[0, 1, 2, 3, 4, 5].map(brushed)}
        <Words x={10} y={20}>
          the line
        </Words>
      </>
    ),
  },
  tee: {
    side: true,
    words: "a ball on a low tee, a tee flush with the grass two hands behind it",
    parts: (
      <>
        <path d="M210 90V104M90 96V110" {...shaft} />
        <Ball x={210} y={83} />
        <Words x={60} y={82}>
          this one stays
        </Words>
      </>
    ),
  },
  bruise: {
    side: true,
    words: "a bruise in the grass is right, a hole is not",
    parts: (
      <>
        <path d="M60 96q35 8 70 0" {...line} />
        <path d="M200 96l14 16h40l14-16" {...dashed} />
        <Words x={72} y={84}>
          right
        </Words>
        <Words x={212} y={84}>
          too deep
        </Words>
      </>
    ),
  },
  box: {
    sand: true,
    words: "a box in the sand with a line across its middle",
    parts: (
      <>
        <rect x={90} y={35} width={140} height={50} {...line} />
        <path d="M160 35V85" {...line} />
        <ellipse cx={162} cy={MIDDLE} rx={58} ry={16} fill="var(--sand-dot)" opacity={0.6} />
      </>
    ),
  },
  note: {
    sand: true,
    words: "a mark the size of a bank note with the ball on it",
    parts: (
      <>
        <rect x={110} y={36} width={100} height={48} {...line} />
        <Ball x={166} />
      </>
    ),
  },
  stick: {
    side: true,
    words: "a slanted stick an arm's length behind the ball",
    parts: (
      <>
        <path d="M40 96L86 20" {...shaft} />
        <path d="M120 10Q170 100 250 92" {...dashed} />
        <Ball x={210} y={90} />
      </>
    ),
  },
  arc: {
    side: true,
    words: "a second ball two hands behind the first, the club goes back over it",
    parts: (
      <>
        <Ball x={210} y={90} />
        <Ball x={100} y={90} />
        <path d="M206 92Q150 70 60 66" {...dashed} />
      </>
    ),
  },
  belt: {
    side: true,
    words: "at the finish the grip end points at the belt",
    parts: (
      <>
        <path d="M120 96V44M108 52h24" {...shaft} />
        <path d="M124 56L214 84" {...shaft} />
        <circle cx={120} cy={34} r={10} {...line} />
        <Words x={142} y={38}>
          grip end to the belt
        </Words>
      </>
    ),
  },
  hand: {
    side: true,
    words: "the lead hand alone, the wrist flat",
    parts: (
      <>
        <path d="M150 30L176 92" {...shaft} />
        <circle cx={150} cy={30} r={8} fill="var(--ink)" />
        <Ball x={196} y={90} />
        <Words x={60} y={34}>
          lead hand
        </Words>
      </>
    ),
  },
  beat: {
    side: true,
    words: "back on one, through on two, the same length both ways",
    parts: (
      <>
        <path d="M80 50A86 86 0 0 0 240 50" {...dashed} />
        <path d="M160 10L84 56M160 10L236 56" {...line} />
        <Words x={48} y={44}>
          one
        </Words>
        <Words x={246} y={44}>
          two
        </Words>
      </>
    ),
  },
  stops: {
    words: "four towels farther and farther",
    parts: (
      <>
        <Ball x={20} />
        {[100, 160, 220, 280].map((x, n) => (
          <g key={x}>
            <rect x={x - 9} y={50} width={18} height={20} fill="var(--paper)" stroke="var(--ink)" />
            <Words x={x - 8} y={92}>{`${10 + 5 * n}`}</Words>
          </g>
        ))}
      </>
    ),
  },
  gates: {
    side: true,
    words: "two sticks on the way back, at 7:30 and at 9:00",
    parts: (
      <>
        <circle cx={170} cy={24} r={5} fill="var(--ink)" />
        <path d="M170 24L112 82M170 24H88" {...shaft} />
        <Words x={62} y={88}>
          7:30
        </Words>
        <Words x={40} y={30}>
          9:00
        </Words>
      </>
    ),
  },
  throw: {
    sand: true,
    words: "sand thrown at a target",
    parts: (
      <>
        <path d="M60 60H262M252 54l10 6l-10 6" {...line} />
        {[110, 140, 170, 200, 230].map((x, n) => (
          <circle key={x} cx={x} cy={MIDDLE + (n % 2 ? 7 : -6)} r={3} fill="var(--sand-dot)" />
        ))}
        <circle cx={284} cy={MIDDLE} r={12} {...line} />
      </>
    ),
  },
  face: {
    words: "the face turned open before the grip is taken",
    parts: (
      <>
        <path d="M150 60H250" {...dashed} />
        <g transform="rotate(28 150 60)">
          <rect x={142} y={36} width={12} height={48} fill="var(--steel)" stroke="var(--ink)" />
        </g>
        <path d="M150 60L96 8" {...shaft} />
      </>
    ),
    handed: true,
    said: (
      <Words x={262} y={65}>
        target
      </Words>
    ),
  },
  lies: {
    words: "nine different lies round a green",
    parts: (
      <>
        <ellipse cx={160} cy={MIDDLE} rx={70} ry={34} fill="var(--grass)" />
        <path d="M160 60V40l12 5l-12 5" {...line} />
        {[0, 1, 2, 3, 4, 5, 6, 7, 8].map((n) => (
          <Ball
            key={n}
            x={160 + 120 * Math.cos((n * 2 * Math.PI) / 9)}
            y={MIDDLE + 48 * Math.sin((n * 2 * Math.PI) / 9)}
            r={5}
          />
        ))}
      </>
    ),
  },
};

/** How a drill is set up, from above or from the side. */
export function DrillDrawing({ drawing, name, hand }: { drawing: string; name: string; hand: "right" | "left" }) {
  const drawn = DRAWINGS[drawing];
  if (!drawn) return null;
  const ground = drawn.sand ? "var(--sand)" : "var(--mat)";
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      style={{ display: "block", maxWidth: WIDTH }}
      role="img"
      aria-label={`${name}: ${drawn.words}`}
    >
      <rect y={drawn.side ? 96 : 0} width={WIDTH} height={drawn.side ? HEIGHT - 96 : HEIGHT} fill={ground} />
      <g transform={drawn.handed && hand === "left" ? `translate(0 ${HEIGHT}) scale(1 -1)` : undefined}>
        {drawn.parts}
      </g>
      {drawn.said}
    </svg>
  );
}
