import { scaleLinear, scaleTime } from "d3-scale";
import type { Schemas } from "../../api/client";
import { figureOf, surfaceOf } from "../../api/tables";
import { Picture } from "../../pictures/Picture";
import { showDay } from "../../units/days";
import { plain } from "../../units/units";
import classes from "./Ground.module.css";

const HEIGHT = 120;
const LEFT = 76;
const TURF = surfaceOf("turf");
const BOUND = figureOf(TURF.figures, TURF.reading);
const CLASSES = TURF.classes.map(
  ({ words, upto }, i) => [TURF.classes[i - 1]?.upto ?? BOUND.low, upto ?? BOUND.high, words] as const,
);

/** Turf firmness of a venue over the years, every drop a dot, on the classes of firmness. */
export function FirmnessHistory({ records }: { records: Schemas["VenueOut"][] }) {
  if (records.length < 2) return null;
  const days = records.map((record) => new Date(`${record.read_on}T12:00:00`).getTime());
  const drops = records.flatMap((r) => [...r.ground.turf.readings_g, r.ground.turf.firmness_g]);
  const low = Math.min(...drops) - 10;
  const high = Math.max(...drops) + 10;
  const y = scaleLinear([low, high], [HEIGHT - 22, 8]);
  const inside = (value: number) => Math.min(Math.max(value, low), high);
  return (
    <Picture
      height={HEIGHT}
      role="img"
      aria-label={`Turf firmness of ${records[0]?.venue} over time; the table below has the numbers`}
      className={classes.history}
    >
      {(width) => {
        const x = scaleTime([Math.min(...days), Math.max(...days)], [LEFT + 40, width - 70]);
        return (
          <>
            {CLASSES.filter(([from, to]) => to > low && from < high).map(([from, to, name]) => (
              <g key={name}>
                <line x1={LEFT} x2={width} y1={y(inside(to))} y2={y(inside(to))} stroke="var(--line)" />
                <text x={0} y={(y(inside(from)) + y(inside(to))) / 2 + 4} fontSize={12}>
                  {name}
                </text>
              </g>
            ))}
            {records.map((record, i) => {
              const at = x(days[i] ?? 0);
              const mean = record.ground.turf.firmness_g;
              return (
                <g key={record.id}>
                  <title>{`${showDay(record.read_on)}: ${record.surfaces.find((surface) => surface.key === TURF.key)?.words}`}</title>
                  {record.ground.turf.readings_g.map((drop, j) => (
                    <circle key={j} cx={at + 3 * (j % 3) - 3} cy={y(drop)} r={2.2} fill="var(--ink-2)" />
                  ))}
                  <line x1={at - 11} x2={at + 11} y1={y(mean)} y2={y(mean)} stroke="var(--ink)" strokeWidth={2.5} />
                  <text x={at + 15} y={y(mean) + 4} fontSize={12} fontWeight={600}>
                    {plain(mean)}&nbsp;g
                  </text>
                  <text x={at} y={HEIGHT - 5} fontSize={11.5} textAnchor="middle" style={{ fill: "var(--ink-2)" }}>
                    {record.season} {record.read_on.slice(0, 4)}
                  </text>
                </g>
              );
            })}
          </>
        );
      }}
    </Picture>
  );
}
