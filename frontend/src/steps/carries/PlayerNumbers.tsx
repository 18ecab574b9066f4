import type { Carries } from "../../api/client";
import { useUnits } from "../../app/context";
import { counted, inReader, plain, signOf } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";

const TOLD_BY = { strikes: "the strikes", both: "both", usual: "what is usual" };

/** What the strikes say of this player, beside what is usual: the unknowns of the model. */
export function PlayerNumbers({ carries }: { carries: Carries }) {
  const units = useUnits();
  return (
    <CopyTable
      caption={carries.used > 0 ? `This player, by ${counted(carries.used, "strike")}` : "What is assumed so far"}
    >
      <thead>
        <tr>
          <th>Unknown</th>
          <th className={parts.num}>Now</th>
          <th className={parts.num}>Usual</th>
          <th>From</th>
        </tr>
      </thead>
      <tbody>
        {carries.parameters.map((p) => {
          const of = (value: number) => inReader({ unit: p.unit, percent: false }, value, units);
          const places = Math.abs(p.usual) < 2 ? 3 : 1;
          return (
            <tr key={p.name}>
              <td>
                {p.name}
                {p.unit && <span className={parts.unit}> {signOf(p.unit, units)}</span>}
              </td>
              <td className={parts.num}>
                {plain(of(p.value), places)} ± {plain(of(p.error), places)}
              </td>
              <td className={parts.num}>
                {plain(of(p.usual), places)} ± {plain(of(p.usual_error), places)}
              </td>
              <td>{TOLD_BY[p.told_by]}</td>
            </tr>
          );
        })}
      </tbody>
    </CopyTable>
  );
}
