import type { Cell } from "../../api/client";
import { type DistanceUnit, inDistance, metres, plain } from "../../units/units";
import { Label } from "../Label";

const PEAK_HALF = 118;

/** What a drawn flight is, at its top. */
export function Peak({
  cell,
  x,
  width,
  y,
  unit,
  above,
}: {
  cell: Cell;
  x: (value: number) => number;
  width: number;
  y: number;
  unit: DistanceUnit;
  above: boolean;
}) {
  const top = cell.path_m.reduce((best, point) => ((point[1] ?? 0) > (best[1] ?? 0) ? point : best), [0, 0]);
  return (
    <Label
      x={Math.min(Math.max(x(top[0] ?? 0), PEAK_HALF), width - PEAK_HALF)}
      y={above ? Math.max(y - 7, 12) : y + 18}
      fontSize={12}
      fontWeight={above ? 650 : 500}
    >
      {cell.name} {cell.swing_name}, {plain(inDistance(metres(cell.apex_m), unit))}&nbsp;{unit} high,{" "}
      {plain(cell.landing_deg)}°
    </Label>
  );
}
