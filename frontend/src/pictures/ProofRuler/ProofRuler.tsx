import { scaleLinear } from "d3-scale";
import type { Proof } from "../../api/client";
import { counted, plain } from "../../units/units";
import { apart, Picture } from "../Picture";
import { RULER_HEIGHT, Ruler } from "../Ruler";

interface Props {
  proof: Proof;
  /** Whether what the model expects is drawn. */
  expected: boolean;
}

const LANE = 74;
const CLOSING = 92;
const LEFT = 150;

/** Strokes a shot on one ruler: every ball as a tick in the row of its block, the mean of each club, what was expected. */
export function ProofRuler({ proof, expected }: Props) {
  const { document, balls, verdict } = proof;
  const counting = balls.filter(({ ball }) => ball.set_aside === null);
  const clubs = document.candidates;
  const worst = Math.max(4, ...counting.map(({ strokes }) => strokes));
  const height = LANE * clubs.length + RULER_HEIGHT;
  const rounds = Math.max(document.rounds * document.situations.length, 1);
  return (
    <Picture height={height} role="img" aria-label="Strokes of every ball, club by club; the table has the numbers">
      {(width) => {
        const left = width < 600 ? 96 : LEFT;
        const x = scaleLinear([1.75, worst + 0.1], [left, width - 20]);
        return (
          <>
            {clubs.map((club, i) => {
              const mine = counting.filter(({ ball }) => ball.club === i);
              const lane = verdict.lanes[i];
              const mean = lane?.strokes ?? null;
              const top = i * LANE;
              const blocks = [...new Set(mine.map(({ ball }) => ball.block))];
              return (
                <g key={club.code} transform={`translate(0 ${top})`}>
                  <line x2={width} y1={LANE} y2={LANE} stroke="var(--line)" />
                  <text x={12} y={26} fontSize={14} fontWeight={650}>
                    {"ABCD"[i]} {club.name}
                  </text>
                  <text x={12} y={44} fontSize={12} style={{ fill: "var(--ink-2)" }}>
                    {counted(mine.length, "ball")}
                  </text>
                  {expected && lane && (
                    <rect
                      x={x(lane.expected - lane.expected_spread)}
                      width={x(lane.expected + lane.expected_spread) - x(lane.expected - lane.expected_spread)}
                      y={4}
                      height={LANE - 8}
                      fill="var(--gorse-soft)"
                      opacity={0.6}
                    />
                  )}
                  {mine.map(({ ball, strokes }, n) => {
                    // equal balls of a block stand beside one another
                    const same = (other: (typeof mine)[number]) =>
                      other.ball.block === ball.block && Math.abs(other.strokes - strokes) < 0.005;
                    const at = x(strokes) + 4 * mine.slice(0, n).filter(same).length;
                    const row = 8 + (blocks.indexOf(ball.block) * (LANE - 18)) / rounds;
                    return (
                      <line
                        key={ball.id}
                        x1={at}
                        x2={at}
                        y1={row}
                        y2={row + Math.max((LANE - 22) / rounds - 2, 4)}
                        stroke="var(--ink-2)"
                        strokeWidth={1.6}
                      />
                    );
                  })}
                  {mean !== null && (
                    <>
                      <line x1={x(mean)} x2={x(mean)} y1={2} y2={LANE - 2} stroke="var(--ink)" strokeWidth={3} />
                      <text x={x(mean) + 7} y={LANE - 8} fontSize={13} fontWeight={650}>
                        {plain(mean, 2)}
                      </text>
                    </>
                  )}
                </g>
              );
            })}
            <g transform={`translate(0 ${height - RULER_HEIGHT})`}>
              <Ruler
                width={width}
                words={left < LEFT ? "strokes" : "strokes a shot"}
                ticks={[2, 2.5, 3, 3.5, 4, 4.5].filter((tick) => tick < worst)}
                at={x}
                name={(tick) => plain(tick, 1)}
              />
            </g>
          </>
        );
      }}
    </Picture>
  );
}

/** How the difference of the first two clubs closes in, block after block, on a ruler of strokes a shot. */
export function Closing({ proof, expected }: Props) {
  const { document, verdict } = proof;
  const first = verdict.comparisons.find((c) => c.situation === null);
  const steps = verdict.closing;
  if (!first || steps.length === 0) return null;
  const reach = Math.max(0.3, ...steps.flatMap(([, , low = 0, high = 0]) => [Math.abs(low), Math.abs(high)])) + 0.05;
  const height = CLOSING + RULER_HEIGHT;
  const [a, b] = [document.candidates[first.first]?.name ?? "", document.candidates[first.second]?.name ?? ""];
  return (
    <Picture height={height} role="img" aria-label={`${a} less ${b}, strokes a shot, as the balls came`}>
      {(width) => {
        const x = scaleLinear([-reach, reach], [20, width - 20]);
        const row = (i: number) => 24 + ((CLOSING - 32) * (i + 0.5)) / steps.length;
        const last = steps.at(-1) ?? [0, 0, 0, 0];
        const labels = apart([{ y: row(steps.length - 1) + 4 }]);
        return (
          <>
            <text x={12} y={15} fontSize={12} style={{ fill: "var(--ink-2)" }}>
              {a} better
            </text>
            <text x={width - 12} y={15} fontSize={12} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
              {b} better
            </text>
            {expected && (
              <rect
                x={x(first.expected - first.expected_spread)}
                width={x(first.expected + first.expected_spread) - x(first.expected - first.expected_spread)}
                y={22}
                height={CLOSING - 24}
                fill="var(--gorse-soft)"
                opacity={0.5}
              />
            )}
            <line x1={x(0)} x2={x(0)} y1={20} y2={CLOSING} stroke="var(--ink-2)" strokeDasharray="2 3" />
            {steps.map(([count = 0, mean = 0, low = 0, high = 0], i) => (
              <g key={count}>
                <line x1={x(low)} x2={x(high)} y1={row(i)} y2={row(i)} stroke="var(--rung)" strokeWidth={3} />
                <circle cx={x(mean)} cy={row(i)} r={i === steps.length - 1 ? 4.5 : 2.2} fill="var(--ink)" />
              </g>
            ))}
            <text x={x(last[3] ?? 0) + 8} y={labels[0]?.y} fontSize={13} fontWeight={650}>
              {plain(Math.abs(last[1] ?? 0), 2)}
            </text>
            <g transform={`translate(0 ${CLOSING})`}>
              <Ruler
                width={width}
                words={width < 600 ? "" : "strokes a shot"}
                ticks={[-0.8, -0.6, -0.4, -0.2, 0, 0.2, 0.4, 0.6, 0.8].filter((t) => Math.abs(t) < reach - 0.02)}
                at={x}
                name={(tick) => (tick === 0 ? "level" : plain(Math.abs(tick), 1))}
              />
            </g>
          </>
        );
      }}
    </Picture>
  );
}
