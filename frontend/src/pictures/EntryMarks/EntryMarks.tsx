import { type KeyboardEvent, useState } from "react";
import { radius_mm as BALL_RADIUS_MM } from "../../api/ball.json";
import type { Strike } from "../../api/client";
import { figureOf, TABLES } from "../../api/tables";
import { plain } from "../../units/units";
import { Label } from "../Label";
import { NARROW, Picture } from "../Picture";
import { fromBall, RULER_HEIGHT, Ruler } from "../Ruler";
import { markRange, markScale, markTicks } from "../scales";
import classes from "./EntryMarks.module.css";

interface Props {
  strikes: Strike[];
  /** Strikes that the summary kept out. */
  outliers: readonly string[];
  mean: number | null;
  spread: number | null;
  low: number | null;
  high: number | null;
  sand: boolean;
  /** In sand: where the sole went in, while the press for where it came out is awaited [mm]. */
  entered: number | null;
  /** What is awaited after it went in. */
  waits?: string;
  /** A press on the ground marks where the sole brushed it [mm from the ball's centre, behind negative]. */
  onMark?: (entryMm: number) => void;
}

const said = (mm: number) => `${plain(Math.abs(mm))}\u00a0mm ${mm < 0 ? "behind" : "ahead"}`;
/** Where the keyboard begins before anything is marked. */
const USUAL_ENTRY = figureOf(TABLES.swing, "entry_mm").usual ?? 0;
const SKY = 92;
const HEIGHT = 150;
const MOST_ROWS = 7;
/** Of the rows of marks, below the words of the mean [px]. */
const ROWS_HEIGHT = 50;
/** Room for the words of the mean [px]. */
const MEAN_WORDS = 150;

/** Where the sole landed, strike by strike, on the ruler of the soles: the ball, the marks, their mean and spread. */
export function EntryMarks({
  strikes,
  outliers,
  mean,
  spread,
  low,
  high,
  sand,
  entered,
  onMark,
  waits = "now press where it came out",
}: Props) {
  const marked = strikes.filter((s) => s.entry_mm !== null);
  const [cursor, setCursor] = useState<number | null>(null);
  const [first, last] = markRange(sand);
  const start = Math.round(mean ?? USUAL_ENTRY);
  const press = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by !== undefined) {
      const next = (cursor ?? start) + by * (event.shiftKey ? 10 : 1);
      setCursor(Math.min(Math.max(next, first), last));
    } else if (event.key === "Enter") onMark?.(cursor ?? start);
    else return;
    event.preventDefault();
  };
  const rows = Math.min(MOST_ROWS, Math.max(marked.length, 1));
  return (
    <Picture height={HEIGHT} role="group" aria-label="Where the sole landed">
      {(width) => {
        const x = markScale(sand, width);
        const radius = x(BALL_RADIUS_MM) - x(0); // it lies on the ground, whatever of it has room above
        return (
          <>
            <circle cx={x(0)} cy={SKY - radius} r={radius} fill="var(--paper)" stroke="var(--line-2)" />
            {mean !== null && spread !== null && (
              <rect
                x={x(mean - spread)}
                width={x(mean + spread) - x(mean - spread)}
                y={6}
                height={SKY - 6}
                fill="var(--gorse-soft)"
                opacity={0.55}
              />
            )}
            {marked.map((strike, i) => {
              const at = x(strike.entry_mm ?? 0);
              const y = SKY - 10 - (i % rows) * (ROWS_HEIGHT / rows);
              const out = strike.set_aside !== null || outliers.includes(strike.id);
              const latest = i === marked.length - 1;
              return (
                <g key={strike.id}>
                  <title>{`${plain(strike.entry_mm ?? 0)}\u00a0mm${strike.set_aside ? `, ${strike.set_aside}` : out ? ", far off, left out" : ""}`}</title>
                  {strike.exit_mm !== null && (
                    <line
                      x1={at}
                      x2={x(strike.exit_mm)}
                      y1={y}
                      y2={y}
                      stroke={out ? "var(--line-2)" : "var(--ink-2)"}
                      strokeWidth={latest ? 3 : 1.5}
                      strokeDasharray={out ? "2 2" : undefined}
                    />
                  )}
                  <line
                    x1={at}
                    x2={at + 10}
                    y1={y}
                    y2={y + 5}
                    stroke={out ? "var(--line-2)" : "var(--ink)"}
                    strokeWidth={latest ? 4 : 2}
                    strokeDasharray={out ? "2 2" : undefined}
                  />
                </g>
              );
            })}
            {mean !== null && (
              <>
                <line x1={x(mean)} x2={x(mean)} y1={4} y2={SKY} stroke="var(--ink)" strokeWidth={2} />
                {low !== null && high !== null && (
                  <line x1={x(low)} x2={x(high)} y1={8} y2={8} stroke="var(--ink)" strokeWidth={4} />
                )}
                {/* beside its line: behind it, or ahead of it where there is no room */}
                <Label
                  x={x(mean) + (x(mean) < MEAN_WORDS ? 8 : -8)}
                  y={30}
                  fontSize={13}
                  fontWeight={650}
                  anchor={x(mean) < MEAN_WORDS ? "start" : "end"}
                >
                  mean {said(mean)}
                </Label>
              </>
            )}
            {entered !== null && (
              <g>
                <line x1={x(entered)} x2={x(entered)} y1={SKY - 26} y2={SKY} stroke="var(--gorse)" strokeWidth={4} />
              </g>
            )}
            {/* biome-ignore lint/a11y/noStaticElementInteractions: its role comes with what can be done to it */}
            <g
              transform={`translate(0 ${SKY})`}
              className={onMark && classes.ground}
              {...(onMark && {
                role: "slider",
                tabIndex: 0,
                "aria-label": "Mark where the sole landed: arrows move, Enter marks",
                "aria-valuenow": cursor ?? start,
                "aria-valuemin": first,
                "aria-valuemax": last,
                "aria-valuetext": said(cursor ?? start),
                onKeyDown: press,
                onFocus: () => setCursor((now) => now ?? start),
                onBlur: () => setCursor(null),
              })}
              onClick={(event) => {
                const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
                if (box && onMark) onMark(Math.round(x.invert(((event.clientX - box.left) * width) / box.width)));
              }}
            >
              <rect width={width} height={HEIGHT - SKY - RULER_HEIGHT} fill={sand ? "var(--sand)" : "var(--mat)"} />
              {cursor !== null && <path d={`M${x(cursor) - 7} 0h14l-7 12z`} fill="var(--ink)" />}
              {entered !== null && (
                <text x={width < NARROW ? 8 : x(30)} y={21} fontSize={width < NARROW ? 12 : 14} fontWeight={650}>
                  in at {said(entered)}: {waits}
                </text>
              )}
              <g transform={`translate(0 ${HEIGHT - SKY - RULER_HEIGHT})`}>
                <Ruler width={width} words="mm behind" ticks={markTicks(sand, width)} at={x} name={fromBall} />
              </g>
            </g>
          </>
        );
      }}
    </Picture>
  );
}
