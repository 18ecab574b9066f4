import type { ReactNode } from "react";

export const RULER_HEIGHT = 26;

interface Props {
  width: number;
  /** What it measures and in what, at its left end. */
  words: string;
  ticks: readonly number[];
  at: (tick: number) => number;
  name?: (tick: number) => ReactNode;
}

/** The dark ruler of all pictures: what it measures, and its ticks. */
export function Ruler({ width, words, ticks, at, name = (tick) => tick }: Props) {
  return (
    <>
      <rect width={width} height={RULER_HEIGHT} fill="var(--ruler)" />
      <text x={8} y={18} fontSize={12} style={{ fill: "var(--gorse)" }}>
        {words}
      </text>
      {ticks.map((tick) => (
        <g key={tick} transform={`translate(${at(tick)} 0)`}>
          <line y2={6} stroke="var(--on-ruler)" />
          <text y={20} fontSize={12} textAnchor="middle" style={{ fill: "var(--on-ruler)" }}>
            {name(tick)}
          </text>
        </g>
      ))}
    </>
  );
}

/** A tick of millimetres from the ball's centre. */
export const fromBall = (tick: number) => (tick === 0 ? "ball" : Math.abs(tick));
