import { useState } from "react";
import { useStore, useUnits } from "../../app/context";
import { FlightRuler, rungKey } from "../../pictures/FlightRuler/FlightRuler";
import { inDistance, metres, plain, showDistance, trimmed } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import { NoProposal } from "../parts/NoProposal";
import parts from "../parts/parts.module.css";
import { SourceMark } from "../parts/SourceMark";
import { StepHead } from "../parts/StepHead";
import { LadderEditor } from "./LadderEditor";
import classes from "./Lofts.module.css";
import { Options } from "./Options";

/** The ladder of lofts: what it carries, where it leaves holes, and what another number of wedges would do. */
export default function LoftsStep() {
  const { server } = useStore();
  const units = useUnits();
  const [focus, setFocus] = useState<string | null>(null);
  const result = server.recommendation;
  if (!result) return <NoProposal title="Lofts" />;
  const { lofts } = result;
  const shown = lofts.rungs.find((r) => rungKey(r) === focus);
  const full = lofts.rungs.filter((r) => r.swing === "full");
  const widest = Math.max(...lofts.gaps.map((g) => g.gap_m), 0);
  return (
    <>
      <StepHead
        title="Lofts"
        aside={
          shown
            ? `${shown.club}: ${showDistance(metres(shown.apex_m), units.distance)} high, lands at ${plain(shown.landing_deg)}°, ${plain(shown.spin_rpm)} rpm`
            : "still air, 25 °C, sea level, dry lie"
        }
      >
        <strong className={classes.ladder}>{lofts.chosen.lofts_deg.map((l) => `${trimmed(l)}°`).join("  ")}</strong>
        <span className={parts.unit}>
          {lofts.typed ? "set by hand" : "proposed"}; widest full gap {showDistance(metres(widest), units.distance)},{" "}
          {showDistance(metres(lofts.wanted_gap_m), units.distance)} aimed for
        </span>
      </StepHead>
      <FlightRuler lofts={lofts} unit={units.distance} focus={focus} onFocus={setFocus} />
      <Options lofts={lofts} />
      <LadderEditor lofts={lofts} />
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
            <th>From</th>
          </tr>
        </thead>
        <tbody>
          {full.map((r, i) => {
            const next = full[i + 1];
            const d = (v: number, places = 0) => plain(inDistance(metres(v), units.distance), places);
            return (
              <tr key={r.club}>
                <td>{r.club}</td>
                <td className={parts.num}>{trimmed(r.loft_deg)}</td>
                <td className={parts.num}>{trimmed(r.dynamic_loft_deg)}</td>
                <td className={parts.num}>{d(r.carry_m)}</td>
                <td className={parts.num}>{next ? d(r.carry_m - next.carry_m) : ""}</td>
                <td className={parts.num}>{d(r.apex_m)}</td>
                <td className={parts.num}>{plain(r.landing_deg)}</td>
                <td className={parts.num}>{plain(r.spin_rpm)}</td>
                <td className={parts.num}>{d(r.run_m)}</td>
                <td>
                  {r.source === "assumed" ? (
                    <SourceMark source="assumed" label={r.club} />
                  ) : (
                    "model, from the pitching wedge"
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </CopyTable>
      <p className={classes.foot}>
        Clock swings are modelled at 88 and 72 % of full head speed until this player's own are measured. Carries of
        partial wedges are good to about 2.5 %; run to half of what is shown, or a metre near zero.
      </p>
    </>
  );
}
