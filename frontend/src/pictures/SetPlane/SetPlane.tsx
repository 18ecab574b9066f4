import { scaleLinear } from "d3-scale";
import type { Recommendation } from "../../api/client";
import { trimmed } from "../../units/units";
import { apart, NARROW, Picture } from "../Picture";

interface Props {
  result: Recommendation;
  leanSpreadDeg: number;
}

const HEIGHT = 260;
const y = scaleLinear([-8, 30], [HEIGHT - 30, 10]);

/** Delivered loft against delivered bounce: every club where its duties put it, spread by lean, over what the grounds ask. */
export function SetPlane({ result, leanSpreadDeg }: Props) {
  const reach = Math.max(leanSpreadDeg, 0) * (y(0) - y(1));
  const wants = groundWants(result);
  return (
    <Picture height={HEIGHT} role="img" aria-label="Set plane: delivered loft against delivered bounce">
      {(width) => {
        const x = scaleLinear([36, 84], [52, width - 16]);
        const narrow = width < NARROW;
        return (
          <>
            <defs>
              <pattern id="plane-turf" width={8} height={8} patternUnits="userSpaceOnUse">
                <path d="M1 7l1-4M5 7l1-3" stroke="var(--grass)" strokeWidth={0.9} />
              </pattern>
              <pattern id="plane-sand" width={6} height={6} patternUnits="userSpaceOnUse">
                <circle cx={2} cy={2} r={0.8} fill="var(--sand-dot)" />
              </pattern>
            </defs>
            {wants.map((want) => (
              <g key={want.label}>
                <rect
                  x={x(want.from)}
                  width={x(want.to) - x(want.from)}
                  y={y(want.high)}
                  height={y(want.low) - y(want.high)}
                  fill={`url(#plane-${want.sand ? "sand" : "turf"})`}
                  stroke="var(--line-2)"
                  strokeDasharray="3 3"
                />
              </g>
            ))}
            {[true, false].flatMap((sand) =>
              apart(wants.filter((want) => want.sand === sand).map((want) => ({ ...want, y: y(want.high) + 14 }))).map(
                (want) => (
                  <text
                    key={want.label}
                    x={sand ? x(want.to) - 6 : x(want.from) + 6}
                    y={want.y}
                    fontSize={11.5}
                    textAnchor={sand ? "end" : "start"}
                    style={{ fill: "var(--ink-2)" }}
                  >
                    {want.label}
                  </text>
                ),
              ),
            )}
            {[0, 10, 20].map((tick) => (
              <g key={tick}>
                <line
                  x1={52}
                  x2={width - 16}
                  y1={y(tick)}
                  y2={y(tick)}
                  stroke={tick === 0 ? "var(--ink-2)" : "var(--line)"}
                />
                <text x={44} y={y(tick) + 4} fontSize={12} textAnchor="end">
                  {tick}°
                </text>
              </g>
            ))}
            {[40, 50, 60, 70]
              .filter((tick) => x(tick) < width - 118)
              .map((tick) => (
                <text key={tick} x={x(tick)} y={HEIGHT - 8} fontSize={12} textAnchor="middle">
                  {tick}°
                </text>
              ))}
            <text x={width - 16} y={HEIGHT - 8} fontSize={12} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
              delivered loft
            </text>
            <text x={12} y={16} fontSize={12} style={{ fill: "var(--ink-2)" }}>
              delivered bounce
            </text>
            {result.clubs.flatMap((club, slot) =>
              points(result, slot).map((p) => (
                <g key={`${slot}${p.key}`} transform={`translate(${x(p.loft)} ${y(p.bounce)})`}>
                  <ellipse rx={reach * 1.3} ry={4} transform="rotate(-38)" fill={FILLS[slot % 4]} opacity={0.16} />
                  <Mark slot={slot} size={3.5 + 22 * Math.sqrt(p.share) * 0.6} />
                  <title>{`${trimmed(club.loft_deg)}°: ${p.name}`}</title>
                </g>
              )),
            )}
            {result.clubs.map((club, slot) => (
              <g
                key={club.slot}
                transform={`translate(${narrow ? 70 + slot * 68 : 150 + slot * 96} ${narrow ? 34 : 12})`}
              >
                <Mark slot={slot} size={6} />
                <text x={12} y={4} fontSize={13} fontWeight={650}>
                  {trimmed(club.loft_deg)}°
                </text>
              </g>
            ))}
          </>
        );
      }}
    </Picture>
  );
}

const FILLS = ["var(--ink)", "var(--gorse)", "var(--moss)", "var(--rust)"];

/** Clubs are told apart by shape as well as tone. */
function Mark({ slot, size }: { slot: number; size: number }) {
  const s = size;
  const d = [
    `M${-s} 0A${s} ${s} 0 1 1 ${s} 0A${s} ${s} 0 1 1 ${-s} 0Z`,
    `M0 ${-s}L${s} ${s}L${-s} ${s}Z`,
    `M${-s} ${-s}H${s}V${s}H${-s}Z`,
    `M0 ${-s}L${s} 0L0 ${s}L${-s} 0Z`,
  ][slot % 4];
  return <path d={d} fill={FILLS[slot % 4]} stroke="var(--ink)" strokeWidth={1} />;
}

/** Where a club is delivered in the shots that it serves at the middle pin. */
function points(result: Recommendation, slot: number) {
  const club = result.clubs[slot];
  const scenarios = new Map(result.scenarios.map((s) => [s.key, s]));
  return (club?.situations ?? []).flatMap((d) => {
    const s = scenarios.get(d.scenario);
    if (!s || !d.serves.includes("middle")) return [];
    return [
      { key: s.key, name: `${s.shot_name} on ${s.ground}`, share: s.share, loft: d.loft_deg, bounce: d.bounce_deg },
    ];
  });
}

/** What each ground asks of a plain pitch and of a greenside sand shot. */
function groundWants(result: Recommendation) {
  return result.scenarios
    .filter((s) => s.shot === "pitch" || s.shot === "sand_greenside")
    .map((s) => ({
      label: `${s.ground}${s.kind === "sand" ? ", sand" : ""}`,
      sand: s.kind === "sand",
      from: s.kind === "sand" ? 58 : 36,
      to: s.kind === "sand" ? 84 : 58,
      low: s.wanted_bounce_low_deg,
      high: s.wanted_bounce_high_deg,
    }));
}
