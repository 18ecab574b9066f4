import { type DistanceUnit, inDistance, metres, plain } from "../../units/units";
import { Picture } from "../Picture";

interface Props {
  flights: { name: string; points: number[][]; apex: number; landing: number }[];
  unit: DistanceUnit;
}

const HEIGHT = 150;

/** Flights from the side, to scale, the first one in ink. */
export function FlightSide({ flights, unit }: Props) {
  const far = Math.max(...flights.flatMap((f) => f.points.map((p) => p[0] ?? 0)), 5) * 1.1;
  const tall = Math.max(...flights.map((f) => f.apex), 1);
  const words = flights
    .map(
      (f) =>
        `${f.name} apex ${plain(inDistance(metres(f.apex), unit), 1)}\u00a0${unit}, lands at ${plain(f.landing)} degrees`,
    )
    .join("; ");
  return (
    <Picture height={HEIGHT} role="img" aria-label={words}>
      {(width) => {
        const scale = Math.min((width - 80) / far, (HEIGHT - 44) / tall);
        const x = (m: number) => 40 + m * scale;
        const y = (m: number) => HEIGHT - 24 - m * scale;
        const ends = flights.map((f) => x(f.points.at(-1)?.[0] ?? 0));
        // the shorter of two carries stands left of its end, the longer right of it
        const anchor = (i: number) =>
          ends.length < 2
            ? "middle"
            : (ends[i] ?? 0) < Math.max(...ends) || (i > 0 && ends[0] === ends[i])
              ? "end"
              : "start";
        const shift = { start: 6, middle: 0, end: -6 };
        return (
          <>
            <line x1={20} x2={width} y1={y(0)} y2={y(0)} stroke="var(--grass)" strokeWidth={2} />
            {flights.map((f, i) => (
              <g key={f.name + i}>
                <polyline
                  points={f.points.map(([a = 0, b = 0]) => `${x(a)},${y(b)}`).join(" ")}
                  fill="none"
                  stroke={i === 0 ? "var(--ink)" : "var(--rust)"}
                  strokeWidth={i === 0 ? 2.5 : 1.5}
                  strokeDasharray={i === 0 ? undefined : "5 4"}
                />
                {f.points.length > 0 && (
                  <text
                    x={(ends[i] ?? 0) + shift[anchor(i)]}
                    y={HEIGHT - 8}
                    fontSize={12}
                    textAnchor={anchor(i)}
                    style={{ fill: i === 0 ? "var(--ink)" : "var(--rust)" }}
                  >
                    {plain(inDistance(metres(f.points.at(-1)?.[0] ?? 0), unit), 1)}&nbsp;{unit}
                  </text>
                )}
              </g>
            ))}
            {flights[0] && flights[0].apex > 0 && (
              <text x={width - 12} y={18} fontSize={12} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
                {plain(inDistance(metres(flights[0].apex), unit), 1)}&nbsp;{unit} high, lands at{" "}
                {plain(flights[0].landing)}°
              </text>
            )}
          </>
        );
      }}
    </Picture>
  );
}
