import { SegmentedControl } from "@mantine/core";
import { useState } from "react";
import { useSearchParams } from "react-router";
import type { Carries, CarriesAsked } from "../../api/client";
import { useStore, useUnits } from "../../app/context";
import { useRemembered } from "../../app/useRemembered";
import { CarryLadder } from "../../pictures/CarryLadder/CarryLadder";
import { cellKey } from "../../pictures/CarryLadder/RungMark";
import { counted, type DistanceUnit, inDistance, metres, plain, showDistance } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import { StepHead } from "../parts/StepHead";
import classes from "./Carries.module.css";
import { Conditions } from "./Conditions";
import { carriesWords, Finder, nameOf } from "./Finder";
import { Measure } from "./Measure";
import { STILL, useCarries } from "./useCarries";

type View = "ladder" | "measure";

/** What every club carries with every swing: the ladder in any conditions, and the measuring of it. */
export default function CarriesStep() {
  const { server } = useStore();
  const [params, setParams] = useSearchParams();
  const view: View = params.get("view") === "measure" ? "measure" : "ladder";
  const measuring = server.document.measuring;
  const [asked, setAsked] = useRemembered<CarriesAsked>("conditions", {
    ...STILL,
    temperature_c: measuring.temperature_c,
    altitude_m: measuring.altitude_m,
    clubs: server.document.bag.wedges.length > 0 ? "bag" : "proposed",
  });
  const change = (changes: Partial<CarriesAsked>) => setAsked((now) => ({ ...now, ...changes }));
  // balls are measured in the air of the session, whatever the ladder is looked at in
  const { temperature_c, altitude_m } = measuring;
  const measured = useCarries({ ...STILL, temperature_c, altitude_m, clubs: asked.clubs }, view === "measure");
  const looked = useCarries(asked, view === "ladder");
  const query = view === "measure" ? measured : looked;
  const units = useUnits();
  // also while there is no answer: from conditions that cannot be worked out there is a way back
  const head = (
    <>
      <SegmentedControl
        aria-label="View"
        size="xs"
        value={view}
        data={[
          { value: "ladder", label: "Ladder" },
          { value: "measure", label: "Measure" },
        ]}
        onChange={(next) => setParams(next === "measure" ? { view: next } : {}, { replace: true })}
      />
      {view === "ladder" && (
        <>
          <SegmentedControl
            aria-label="Clubs"
            size="xs"
            value={asked.clubs}
            data={[
              { value: "bag", label: "bag" },
              { value: "proposed", label: "new set" },
            ]}
            onChange={(clubs) => change({ clubs: clubs as CarriesAsked["clubs"] })}
          />
          <Conditions asked={asked} onChange={change} />
        </>
      )}
    </>
  );
  const evidence = view === "measure" && query.data ? evidenceWords(query.data, units.distance) : undefined;
  return (
    <>
      <StepHead title="Carries" aside={evidence}>
        {head}
      </StepHead>
      {query.isError && !query.data && (
        <p role="alert" className={classes.teach}>
          {query.error.message}
        </p>
      )}
      {query.data && view === "measure" && <Measure carries={query.data} />}
      {query.data && view === "ladder" && <Ladder carries={query.data} asked={asked} onChange={change} />}
    </>
  );
}

function Ladder({
  carries,
  asked,
  onChange,
}: {
  carries: Carries;
  asked: CarriesAsked;
  onChange: (changes: Partial<CarriesAsked>) => void;
}) {
  const units = useUnits();
  const [focus, setFocus] = useState<string | null>(null);
  const pinned = asked.pinned ? cellKey(asked.pinned) : null;
  const first = carries.found[0] ? cellKey(carries.found[0]) : null;
  const shown = carries.cells.find((c) => cellKey(c) === (focus ?? first ?? pinned)) ?? null;
  const pin = (key: string) => {
    const cell = carries.cells.find((c) => cellKey(c) === key);
    onChange({
      pinned: cell && key !== pinned ? { club: cell.club, loft_deg: cell.loft_deg, swing: cell.swing } : null,
    });
  };
  return (
    <>
      <CarryLadder
        carries={carries}
        unit={units.distance}
        focus={focus ?? first}
        pinned={pinned}
        onFocus={setFocus}
        onPin={pin}
        distance={asked.distance_m ?? null}
        onDistance={(distance_m) => onChange({ distance_m: Math.round(distance_m) })}
      />
      <p className={classes.told} role="status">
        {shown ? (
          <>
            <strong>{nameOf(shown)}</strong> {carriesWords(shown, units.distance)},{" "}
            {showDistance(metres(shown.apex_m), units.distance)} high, lands at {plain(shown.landing_deg)}°,{" "}
            {plain(Math.round(shown.spin_rpm / 10) * 10)}&nbsp;rpm, releases{" "}
            {showDistance(metres(shown.run_m), units.distance, 1)}
            {Math.abs(shown.lateral_m) >= 0.5 &&
              `, drifts ${showDistance(metres(Math.abs(shown.lateral_m)), units.distance)} ${shown.lateral_m > 0 ? "right" : "left"}`}
            . {shown.against_pinned && <em>Against the pinned shot: {shown.against_pinned}. </em>}
            <span>From what? {capital(shown.from_what)}.</span>
          </>
        ) : (
          <span>
            {summary(carries, units.distance)} Point at a rung to see its flight and what it rests on; press it to pin
            it and compare others with it.
          </span>
        )}
      </p>
      <Finder carries={carries} asked={asked} onChange={onChange} onFocus={setFocus} />
      <RungTable carries={carries} unit={units.distance} />
      <p className={classes.foot}>
        {carries.rule} Bars are one ball's spread (one standard deviation either way): full where measured, dashed where
        modelled, dotted where assumed.
        {carries.overlaps.length > 0 && ` Same job twice: ${carries.overlaps.map((o) => o.words).join("; ")}.`}
      </p>
    </>
  );
}

function RungTable({ carries, unit }: { carries: Carries; unit: DistanceUnit }) {
  const d = (value: number, places = 1) => plain(inDistance(metres(value), unit), places);
  return (
    <CopyTable caption="Every club and swing">
      <thead>
        <tr>
          <th>Club</th>
          <th>Swing</th>
          <th className={parts.num}>Carry {unit}</th>
          <th className={parts.num}>80 % {unit}</th>
          <th className={parts.num}>Spread of a ball {unit}</th>
          <th className={parts.num}>Apex {unit}</th>
          <th className={parts.num}>Lands °</th>
          <th className={parts.num}>Spin rpm</th>
          <th className={parts.num}>Release {unit}</th>
          <th>From</th>
        </tr>
      </thead>
      <tbody>
        {carries.cells.map((c) => (
          <tr key={cellKey(c)}>
            <td>{c.name}</td>
            <td>{c.swing_name}</td>
            <td className={parts.num}>{d(c.carry_m)}</td>
            <td className={parts.num}>
              {d(c.low_m, 0)} to {d(c.high_m, 0)}
            </td>
            <td className={parts.num}>{d(c.spread_m)}</td>
            <td className={parts.num}>{d(c.apex_m)}</td>
            <td className={parts.num}>{plain(c.landing_deg)}</td>
            <td className={parts.num}>{plain(c.spin_rpm)}</td>
            <td className={parts.num}>{d(c.run_m)}</td>
            <td title={c.from_what}>{c.count > 0 ? `${c.count} measured` : c.source}</td>
          </tr>
        ))}
      </tbody>
    </CopyTable>
  );
}

/** The one thing the ladder says first. */
function summary(carries: Carries, unit: DistanceUnit) {
  const holes = [...carries.holes].sort((a, b) => b.high_m - b.low_m - (a.high_m - a.low_m));
  const widest = holes[0];
  if (!widest) return "No hole: every distance lies within reach of a rung.";
  const from = plain(inDistance(metres(widest.low_m), unit));
  const to = plain(inDistance(metres(widest.high_m), unit));
  return `${counted(holes.length, "hole")}, the widest from ${from} to ${to}\u00a0${unit}.`;
}

function evidenceWords(carries: Carries, unit: DistanceUnit) {
  if (carries.used === 0) return "no strikes yet: everything is modelled";
  const aside = carries.aside > 0 ? `, ${carries.aside} set aside` : "";
  const error =
    carries.leave_one_out_m === null
      ? ""
      : `; a strike left out is predicted to ±${showDistance(metres(carries.leave_one_out_m), unit, 1)}`;
  return `${counted(carries.used, "strike")}${aside}${error}`;
}

function capital(text: string) {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
