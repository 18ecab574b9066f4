import { scaleLinear } from "d3-scale";
import { area, curveBasis } from "d3-shape";
import { radius_mm as BALL_RADIUS_MM } from "../../api/ball.json";
import { plain } from "../../units/units";
import { lowest, outlinePath, type Point, pitched } from "../outline";
import { NARROW, Picture } from "../Picture";
import { fromBall, RULER_HEIGHT, Ruler } from "../Ruler";
import { ticksOf } from "../scales";

interface Props {
  outline: readonly Point[];
  leanDeg: number;
  leanSpreadDeg: number;
  attackDeg: number;
  attackSpreadDeg: number;
  entryMm: number;
  entrySpreadMm: number;
}

const RANGE = [-150, 70] as const;
const NARROW_RANGE = [-96, 40] as const;
export const DELIVERY_HEIGHT = 318;
const GROUND = 208;
const ROOM_FOR_WORDS = 260; // px on the left of where the sole lands

/** How the club comes to the ball, true to scale: sole, lean, attack, and where it lands, on one ruler in millimetres. */
export function Delivery(p: Props) {
  const words = `Lean ${plain(p.leanDeg, 1)} degrees, attack ${plain(p.attackDeg, 1)} degrees, sole lands ${where(p.entryMm)}.`;
  return (
    <Picture height={DELIVERY_HEIGHT} role="img" aria-label={words}>
      {(width) => {
        const range = width < NARROW ? NARROW_RANGE : RANGE;
        const x = scaleLinear([...range], [20, width - 20]);
        const mm = x(1) - x(0);
        const down = (deg: number) => Math.tan((deg * Math.PI) / 180);
        const head = (lean: number) => {
          const turned = pitched(p.outline, lean);
          return { d: outlinePath(turned), lift: lowest(turned) };
        };
        const main = head(p.leanDeg);
        const at = x(p.entryMm);
        const place = (lift: number) => `translate(${at} ${GROUND + lift * mm}) scale(${mm} ${-mm})`;
        const far = 0;
        const ray = (attack: number) => `M${at} ${GROUND}L${far} ${GROUND + down(attack) * (at - far)}`;
        const bell = Array.from(
          { length: 81 },
          (_, i) => p.entryMm + ((i - 40) / 40) * 3 * Math.max(p.entrySpreadMm, 1),
        );
        const height = (mmAt: number) => Math.exp(-0.5 * ((mmAt - p.entryMm) / Math.max(p.entrySpreadMm, 1)) ** 2);
        const bellPath = area<number>()
          .x((v) => x(v))
          .y0(DELIVERY_HEIGHT - 2)
          .y1((v) => DELIVERY_HEIGHT - 2 - 52 * height(v))
          .curve(curveBasis);
        const beside = x(bell[0] ?? 0) > ROOM_FOR_WORDS;
        return (
          <>
            <defs>
              <clipPath id="delivery-air">
                <rect x={0} y={0} width={width} height={GROUND} />
              </clipPath>
              <pattern id="delivery-soil" width={8} height={8} patternUnits="userSpaceOnUse">
                <circle cx={2} cy={2} r={0.8} fill="var(--soil-dot)" />
                <circle cx={6} cy={6} r={0.8} fill="var(--soil-dot)" />
              </pattern>
            </defs>
            <rect
              x={0}
              y={GROUND}
              width={width}
              height={DELIVERY_HEIGHT - GROUND - RULER_HEIGHT - 56}
              fill="var(--soil)"
            />
            <rect
              x={0}
              y={GROUND}
              width={width}
              height={DELIVERY_HEIGHT - GROUND - RULER_HEIGHT - 56}
              fill="url(#delivery-soil)"
            />
            <g clipPath="url(#delivery-air)" fill="none" stroke="var(--line-2)">
              <path d={ray(p.attackDeg - p.attackSpreadDeg)} strokeDasharray="2 4" />
              <path d={ray(p.attackDeg + p.attackSpreadDeg)} strokeDasharray="2 4" />
              <path d={ray(p.attackDeg)} stroke="var(--ink)" strokeDasharray="6 4" />
            </g>
            <line
              x1={x(0)}
              x2={x(0)}
              y1={8}
              y2={DELIVERY_HEIGHT - RULER_HEIGHT - 56}
              stroke="var(--line-2)"
              strokeDasharray="2 3"
            />
            <circle
              cx={x(0)}
              cy={GROUND - (BALL_RADIUS_MM + 3.5) * mm}
              r={BALL_RADIUS_MM * mm}
              fill="var(--paper)"
              stroke="var(--ink)"
              strokeWidth={1.5}
            />
            {[p.leanDeg - p.leanSpreadDeg, p.leanDeg + p.leanSpreadDeg].map((lean) => {
              const ghost = head(lean);
              return (
                <path
                  key={lean}
                  d={ghost.d}
                  transform={place(ghost.lift)}
                  fill="none"
                  stroke="var(--line-2)"
                  strokeWidth={1 / mm}
                />
              );
            })}
            <path
              d={main.d}
              transform={place(main.lift)}
              fill="var(--steel)"
              stroke="var(--steel-line)"
              strokeWidth={1.6 / mm}
              strokeLinejoin="round"
            />
            <line x1={0} x2={width} y1={GROUND} y2={GROUND} stroke="var(--grass)" strokeWidth={2.5} />
            <text x={20} y={30} fontSize={15}>
              lean{" "}
              <tspan fontWeight={650}>
                {plain(p.leanDeg, 1)}° ± {plain(p.leanSpreadDeg, 1)}
              </tspan>
            </text>
            <text x={20} y={53} fontSize={15}>
              attack{" "}
              <tspan fontWeight={650}>
                {plain(p.attackDeg, 1)}° ± {plain(p.attackSpreadDeg, 1)}
              </tspan>
            </text>
            <g transform={`translate(0 ${DELIVERY_HEIGHT - RULER_HEIGHT - 56})`}>
              <Ruler width={width} words="mm" ticks={ticksOf(range, width, 20)} at={x} name={fromBall} />
              <path d={`M${at - 6} 0h12l-6 10z`} fill="var(--gorse)" />
            </g>
            <path d={bellPath(bell) ?? ""} fill="var(--gorse-soft)" stroke="var(--gorse-ink)" />
            {beside ? (
              <>
                <text x={20} y={DELIVERY_HEIGHT - 40} fontSize={13}>
                  sole lands {where(p.entryMm)},
                </text>
                <text x={20} y={DELIVERY_HEIGHT - 22} fontSize={13}>
                  spread {plain(p.entrySpreadMm)}&nbsp;mm
                </text>
              </>
            ) : (
              <text x={20} y={76} fontSize={15}>
                lands{" "}
                <tspan fontWeight={650}>
                  {plain(Math.abs(p.entryMm))} ± {plain(p.entrySpreadMm)}&nbsp;mm {p.entryMm <= 0 ? "behind" : "ahead"}
                </tspan>
              </text>
            )}
          </>
        );
      }}
    </Picture>
  );
}

function where(entryMm: number) {
  const distance = `${plain(Math.abs(entryMm))}\u00a0mm`;
  return entryMm <= 0 ? `${distance} behind the ball's centre` : `${distance} ahead of the ball's centre`;
}
