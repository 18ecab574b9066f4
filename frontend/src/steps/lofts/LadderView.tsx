import { useState } from "react";
import type { Carries, Recommendation } from "../../api/client";
import { useStore, useUnits } from "../../app/context";
import { CarryLadder } from "../../pictures/CarryLadder/CarryLadder";
import { cellKey } from "../../pictures/CarryLadder/RungMark";
import { inDistance, metres, plain, showDistance, trimmed } from "../../units/units";
import { STILL, useCarries } from "../carries/useCarries";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import { Distances } from "./Distances";
import { Front } from "./Front";
import { LadderEditor } from "./LadderEditor";
import classes from "./Lofts.module.css";
import { Options } from "./Options";
import { Weights } from "./Weights";

/** The ladder of lofts: what it carries, where it leaves holes, and the evenest ladder of every number of wedges. */
export function LadderView({ result }: { result: Recommendation }) {
  const { server } = useStore();
  const units = useUnits();
  const [focus, setFocus] = useState<string | null>(null);
  const { temperature_c, altitude_m } = server.document.measuring;
  const query = useCarries({ ...STILL, clubs: "proposed", temperature_c, altitude_m });
  const { lofts } = result;
  const shown = query.data?.cells.find((c) => cellKey(c) === focus);
  const widest = query.data && Math.max(...query.data.gaps.map((gap) => gap.gap_m), 0);
  return (
    <>
      <p className={classes.line}>
        <strong className={classes.ladder}>{lofts.chosen.lofts_deg.map((l) => `${trimmed(l)}°`).join("  ")}</strong>
        <span className={parts.unit}>
          {lofts.typed ? "set by hand" : "of the shown set"}
          {widest !== undefined && `; widest full gap ${showDistance(metres(widest), units.distance)}`},{" "}
          {showDistance(metres(lofts.wanted_gap_m), units.distance)} aimed for
        </span>
        <span className={parts.aside}>
          {shown
            ? `${shown.name} ${shown.swing_name}: ${showDistance(metres(shown.apex_m), units.distance)} high, lands at ${plain(shown.landing_deg)}°, ${plain(shown.spin_rpm)}\u00a0rpm`
            : `still air, ${plain(temperature_c)}\u00a0°C, dry lie`}
        </span>
      </p>
      {query.data ? (
        <CarryLadder carries={query.data} unit={units.distance} focus={focus} pinned={null} onFocus={setFocus} />
      ) : (
        <div className={classes.pause} />
      )}
      <Options lofts={lofts} />
      <LadderEditor lofts={lofts} />
      <Weights lofts={lofts} />
      <Front />
      <Distances longest={query.data?.faced.at(-1)?.[0] ?? 110} />
      {query.data && <FullSwings carries={query.data} />}
    </>
  );
}

function FullSwings({ carries }: { carries: Carries }) {
  const units = useUnits();
  const full = carries.cells.filter((c) => c.swing === "full").sort((a, b) => a.loft_deg - b.loft_deg);
  const d = (v: number, places = 0) => plain(inDistance(metres(v), units.distance), places);
  return (
    <CopyTable caption="Full swings">
      <thead>
        <tr>
          <th>Club</th>
          <th className={parts.num}>Loft °</th>
          <th className={parts.num}>Delivered °</th>
          <th className={parts.num}>Carry {units.distance}</th>
          <th className={parts.num}>Gap {units.distance}</th>
          <th className={parts.num}>Apex {units.distance}</th>
          <th className={parts.num}>Lands °</th>
          <th className={parts.num}>Spin rpm</th>
          <th className={parts.num}>Run {units.distance}</th>
          <th>From what</th>
        </tr>
      </thead>
      <tbody>
        {full.map((c, i) => {
          const next = full[i + 1];
          return (
            <tr key={cellKey(c)}>
              <td>{c.name}</td>
              <td className={parts.num}>{trimmed(c.loft_deg)}</td>
              <td className={parts.num}>{trimmed(c.dynamic_loft_deg)}</td>
              <td className={parts.num}>{d(c.carry_m)}</td>
              <td className={parts.num}>{next ? d(c.carry_m - next.carry_m) : ""}</td>
              <td className={parts.num}>{d(c.apex_m)}</td>
              <td className={parts.num}>{plain(c.landing_deg)}</td>
              <td className={parts.num}>{plain(c.spin_rpm)}</td>
              <td className={parts.num}>{d(c.run_m)}</td>
              <td>{c.from_what}</td>
            </tr>
          );
        })}
      </tbody>
    </CopyTable>
  );
}
