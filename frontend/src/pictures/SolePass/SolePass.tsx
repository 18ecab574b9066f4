import type { KeyboardEvent, PointerEvent } from "react";
import { radius_mm as BALL } from "../../api/ball.json";
import { OUTCOME_WORDS, type Setup } from "../../desk/setup";
import type { DeskHead } from "../../desk/useDesk";
import { type DistanceUnit, inDistance, metres, plain, trimmed } from "../../units/units";
import { EntryRuler } from "../EntryRuler";
import { NARROW, Picture } from "../Picture";
import { RULER_HEIGHT } from "../Ruler";
import { entryRange, passScale } from "../scales";
import { GROUND, GroundLayers, HEIGHT } from "./GroundLayers";
import { Club, ContactMark } from "./Head";

interface Props {
  head: DeskHead;
  ghost?: DeskHead;
  ghostName?: string;
  setup: Setup;
  unit: DistanceUnit;
  /** How deep turf gives before the soil. */
  thatchMm: number;
  onEntry: (entryMm: number) => void;
}

/** On a narrow screen the words stand above the picture. */
const WORDS_ABOVE = 132;
const TRAIL_MM = [34, 68];

/** The sole passing through this ground to the ball, at true scale; drag it, or press the arrows, to move the entry. */
export function SolePass({ head, ghost, ghostName, setup, unit, thatchMm, onEntry }: Props) {
  const sand = setup.ground.kind === "sand";
  const ballUp = setup.ground.kind === "turf" ? setup.ground.ball_height_mm : -setup.ground.plug_depth_mm;
  const { strike } = head;
  const [first, last] = entryRange(sand);
  const inside = (mm: number) => Math.round(Math.min(Math.max(mm, first), last));
  const scaleOf = (width: number) => passScale(sand, setup.entry_mm, width, width < NARROW);
  const groundOf = (width: number) => (width < NARROW ? GROUND + WORDS_ABOVE - 40 : GROUND);
  const move = (event: PointerEvent<SVGSVGElement>) => {
    if (event.buttons !== 1) return;
    const box = event.currentTarget.getBoundingClientRect();
    const width = event.currentTarget.viewBox.baseVal?.width || box.width;
    const at = scaleOf(width).invert(((event.clientX - box.left) / box.width) * width);
    onEntry(inside(at));
  };
  const key = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -2, ArrowRight: 2 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onEntry(inside(setup.entry_mm + by));
  };
  const outcome = OUTCOME_WORDS[strike.outcome] ?? strike.outcome;
  const carry = `${plain(inDistance(metres(strike.carry_m), unit), 1)}\u00a0${unit}`;
  const words = `${outcome}. Carries ${carry}. Entry ${plain(setup.entry_mm)} millimetres from the ball's centre.`;
  return (
    <Picture
      height={(width) => HEIGHT - GROUND + groundOf(width)}
      role="slider"
      tabIndex={0}
      aria-label="Sole pass: entry"
      aria-valuenow={setup.entry_mm}
      aria-valuemin={first}
      aria-valuemax={last}
      aria-valuetext={words}
      onPointerDown={move}
      onPointerMove={move}
      onKeyDown={key}
      style={{ touchAction: "none", cursor: "ew-resize" }}
    >
      {(width) => {
        const x = scaleOf(width);
        const mm = x(1) - x(0);
        const ground = groundOf(width);
        const height = HEIGHT - GROUND + ground;
        const y = (z: number) => ground - z * mm;
        const narrow = width < NARROW;
        return (
          <>
            <defs>
              <pattern id="pass-soil" width={8} height={8} patternUnits="userSpaceOnUse">
                <circle cx={2} cy={2} r={0.8} fill="var(--soil-dot)" />
                <circle cx={6} cy={6} r={0.8} fill="var(--soil-dot)" />
              </pattern>
              <pattern id="pass-sand" width={5} height={5} patternUnits="userSpaceOnUse">
                <circle cx={1.5} cy={1.5} r={0.7} fill="var(--sand-dot)" />
                <circle cx={4} cy={4} r={0.7} fill="var(--sand-dot)" />
              </pattern>
              <pattern id="pass-base" width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
                <line y2={7} stroke="var(--ink-2)" strokeWidth={0.8} />
              </pattern>
              <clipPath id="pass-clip">
                <rect width={width} height={height - RULER_HEIGHT} />
              </clipPath>
            </defs>
            <g clipPath="url(#pass-clip)">
              <GroundLayers setup={setup} thatch={thatchMm * mm} mm={mm} width={width} ground={ground} />
              <line
                x1={x(0)}
                x2={x(0)}
                y1={narrow ? WORDS_ABOVE : 4}
                y2={height}
                stroke="var(--line-2)"
                strokeDasharray="2 3"
              />
              <circle
                cx={x(0)}
                cy={y(ballUp + BALL)}
                r={BALL * mm}
                fill="var(--paper)"
                stroke="var(--ink)"
                strokeWidth={1.5}
              />
              {ghost && <Club head={ghost} x={x} y={y} mm={mm} tone="ghost" />}
              {TRAIL_MM.map((back) => (
                <Club key={back} head={head} x={x} y={y} mm={mm} tone="trail" back={back} />
              ))}
              <polyline
                points={head.path_mm.map(([px = 0, pz = 0]) => `${x(px)},${y(pz)}`).join(" ")}
                fill="none"
                stroke="var(--ink-2)"
                strokeDasharray="2 4"
              />
              <Club head={head} x={x} y={y} mm={mm} tone="main" />
              {head.contact_mm && <ContactMark head={head} x={x} y={y} ballZ={ballUp + BALL} />}
              <line
                x1={0}
                x2={width}
                y1={ground}
                y2={ground}
                stroke={sand ? "var(--sand-dot)" : "var(--grass)"}
                strokeWidth={2}
              />
            </g>
            <g fontSize={13} stroke="var(--chalk)" strokeWidth={5} strokeLinejoin="round" paintOrder="stroke">
              <text x={20} y={26}>
                delivered loft{" "}
                <tspan fontWeight={650} fontSize={17}>
                  {trimmed(strike.delivered_loft_deg)}°
                </tspan>
              </text>
              <text x={20} y={50}>
                delivered bounce{" "}
                <tspan
                  fontWeight={650}
                  fontSize={17}
                  style={{ fill: strike.delivered_bounce_deg < 0 ? "var(--rust)" : undefined }}
                >
                  {trimmed(strike.delivered_bounce_deg)}°
                </tspan>
              </text>
              {strike.extrapolated.length > 0 && (
                <text x={20} y={74} style={{ fill: "var(--rust)" }}>
                  not tested: {strike.extrapolated.join(", ")}
                </text>
              )}
            </g>
            <g transform={`translate(${narrow ? width / 2 : x(0) + BALL * mm + 12} ${narrow ? 28 : 34})`} fontSize={13}>
              <text fontSize={23} fontWeight={650}>
                {outcome}
              </text>
              <text y={24} style={{ fill: "var(--ink-2)" }}>
                carries {carry}
              </text>
              <text y={42} style={{ fill: "var(--ink-2)" }}>
                of {plain(inDistance(metres(strike.intended_carry_m), unit), 1)}&nbsp;{unit}
              </text>
              <text y={66}>
                edge <tspan fontWeight={650}>{plain(Math.abs(strike.leading_edge_mm), 1)}&nbsp;mm</tspan>{" "}
                {strike.leading_edge_mm >= 0 ? "over" : "under"}
              </text>
              {strike.contact === "face" && (
                <text y={84}>
                  face <tspan fontWeight={650}>{plain(strike.impact_height_mm, 1)}&nbsp;mm</tspan> up
                </text>
              )}
              {strike.contact === "edge" && <text y={84}>the edge meets the ball</text>}
              <text y={102}>
                <tspan fontWeight={650}>{plain(100 * strike.speed_ratio)}&nbsp;%</tspan> of its speed
              </text>
              {ghost && (
                <text y={128} style={{ fill: "var(--rust)" }}>
                  {ghostName}: {(OUTCOME_WORDS[ghost.strike.outcome] ?? "").toLowerCase()},
                </text>
              )}
              {ghost && (
                <text y={145} style={{ fill: "var(--rust)" }}>
                  {plain(inDistance(metres(ghost.strike.carry_m), unit), 1)}&nbsp;{unit}
                </text>
              )}
            </g>
            <g transform={`translate(0 ${height - RULER_HEIGHT})`}>
              <EntryRuler width={width} x={x} />
              <path d={`M${x(setup.entry_mm) - 7} 0h14l-7 11z`} fill="var(--gorse)" />
            </g>
          </>
        );
      }}
    </Picture>
  );
}
