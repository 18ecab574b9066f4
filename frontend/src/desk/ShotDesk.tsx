import { Button, SegmentedControl } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import type { Head } from "../api/client";
import { useUnits } from "../app/context";
import { FlightSide } from "../pictures/FlightSide/FlightSide";
import { SolePass } from "../pictures/SolePass/SolePass";
import { StrikeWindows } from "../pictures/StrikeWindows/StrikeWindows";
import { parseNumber, plain, showPercent, trimmed } from "../units/units";
import classes from "./Desk.module.css";
import { Dials } from "./Dials";
import { type Setup, USUAL_SAND, USUAL_TURF } from "./setup";
import { useDesk } from "./useDesk";

const PLAIN: Head = {
  loft_deg: 56,
  bounce_deg: 12,
  sole_width_mm: 22,
  camber_radius_mm: 50,
  leading_edge_radius_mm: 2.5,
  front_bevel_mm: 0,
  front_bevel_deg: 0,
  trailing_relief_fraction: 0,
  trailing_relief_deg: 0,
  heel_relief_mm: 0,
  toe_relief_mm: 0,
  lie_deg: 64,
  head_mass_kg: 0.3,
};

const LIES: Record<string, Setup> = {
  fairway: USUAL_TURF,
  "tight, firm": {
    ...USUAL_TURF,
    ground: { kind: "turf", firmness_g: 130, moisture: 0.2, root_density: 1, ball_height_mm: 1 },
  },
  "soft, wet": {
    ...USUAL_TURF,
    ground: { kind: "turf", firmness_g: 52, moisture: 0.85, root_density: 1, ball_height_mm: 4 },
  },
  "lush rough": {
    ...USUAL_TURF,
    ground: { kind: "turf", firmness_g: 75, moisture: 0.5, root_density: 1.3, ball_height_mm: 14 },
  },
  sand: USUAL_SAND,
  "thin sand": {
    ...USUAL_SAND,
    opening_deg: 0,
    ground: { kind: "sand", penetrometer_kg_cm2: 2.5, loose_depth_mm: 15, moisture: 0.5, plug_depth_mm: 2 },
  },
  plugged: {
    ...USUAL_SAND,
    opening_deg: -10,
    lean_deg: 4,
    attack_deg: -11,
    speed_mps: 26,
    ground: { kind: "sand", penetrometer_kg_cm2: 1.9, loose_depth_mm: 80, moisture: 0.2, plug_depth_mm: 16 },
  },
};

/** Any club, any lie, any setup, without a player: what happens, how risky it is, and which setup makes another club the same. */
export default function ShotDesk() {
  const units = useUnits();
  const [lie, setLie] = useState("fairway");
  const [setup, setSetup] = useState<Setup>(USUAL_TURF);
  const [heads, setHeads] = useState<Head[]>([PLAIN, { ...PLAIN, bounce_deg: 6, sole_width_mm: 17 }]);
  const { answer, failure } = useDesk({ ...setup, heads, twins: true });
  const home = LIES[lie] ?? USUAL_TURF;
  const first = answer?.heads[0];
  const second = answer?.heads[1];
  const name = (head: Head | undefined) => (head ? `${trimmed(head.loft_deg)}° with ${trimmed(head.bounce_deg)}°` : "");
  const put = (index: number, head: Head) => setHeads(heads.map((h, i) => (i === index ? head : h)));
  return (
    <main className={classes.page}>
      <header className={classes.bar}>
        <Link to="/">Oblatus</Link>
        <h1 style={{ margin: 0, fontSize: 19, fontStretch: "104%" }}>Shot desk</h1>
        <SegmentedControl
          aria-label="Lie"
          value={lie}
          data={Object.keys(LIES)}
          onChange={(next) => {
            setLie(next);
            setSetup(LIES[next] ?? USUAL_TURF);
          }}
        />
      </header>
      {failure && (
        <p role="alert" className={classes.failure}>
          {failure}
        </p>
      )}
      {first && (
        <>
          <div className={classes.verdict}>
            <span className={classes.light} data-light={first.risk}>
              {first.risk}
            </span>
            <span>{first.risk_rule}</span>
          </div>
          <SolePass
            head={first}
            ghost={second}
            ghostName={name(heads[1])}
            setup={setup}
            unit={units.distance}
            onEntry={(entry_mm) => setSetup({ ...setup, entry_mm })}
          />
          <StrikeWindows
            rows={(answer?.heads ?? []).map((head, i) => ({
              name: name(heads[i]),
              note: `${plain(heads[i]?.sole_width_mm ?? 0)} mm`,
              head,
            }))}
            sand={setup.ground.kind === "sand"}
            entryMm={setup.entry_mm}
            spreadMm={setup.entry_spread_mm}
            whose="entries"
            focus={0}
            onFocus={() => {}}
          />
          <Dials setup={setup} home={home} onChange={setSetup} />
          <FlightSide
            flights={(answer?.heads ?? []).map((h, i) => ({
              name: name(heads[i]),
              points: h.flight_m,
              apex: h.apex_m,
              landing: h.landing_deg,
            }))}
            unit={units.distance}
          />
          {second?.twin && (
            <p className={classes.verdict}>
              <strong>Same bounce by setup.</strong> On this ground {name(heads[1])} comes nearest to {name(heads[0])}{" "}
              with {trimmed(second.twin.lean_deg)}° of lean and the face{" "}
              {second.twin.opening_deg === 0 ? "square" : `opened ${trimmed(second.twin.opening_deg)}°`}:{" "}
              {showPercent(second.twin.likeness)} alike.
              <Button
                variant="default"
                size="xs"
                onClick={() =>
                  setSetup({
                    ...setup,
                    lean_deg: second.twin?.lean_deg ?? setup.lean_deg,
                    opening_deg: second.twin?.opening_deg ?? setup.opening_deg,
                  })
                }
              >
                Set it up so
              </Button>
            </p>
          )}
        </>
      )}
      <div className={classes.heads}>
        {heads.map((head, i) => (
          <HeadFields
            key={i}
            title={i === 0 ? "Club in hand" : "Against"}
            head={head}
            onChange={(next) => put(i, next)}
          />
        ))}
      </div>
    </main>
  );
}

const FIELDS: readonly (readonly [keyof Head, string, number, number])[] = [
  ["loft_deg", "Loft °", 40, 68],
  ["bounce_deg", "Bounce °", 0, 20],
  ["sole_width_mm", "Width mm", 10, 32],
  ["camber_radius_mm", "Camber mm", 20, 400],
  ["heel_relief_mm", "Heel mm", 0, 4],
];

/** A head by its numbers; one outside its range is said here and not asked of the engine. */
function HeadFields({ title, head, onChange }: { title: string; head: Head; onChange: (head: Head) => void }) {
  const [text, setText] = useState<Record<string, string>>({});
  return (
    <fieldset style={{ border: 0, padding: 0, margin: 0 }}>
      <legend style={{ fontWeight: 600, paddingBottom: 6 }}>{title}</legend>
      <div style={{ display: "flex", gap: 10, flexWrap: "wrap" }}>
        {FIELDS.map(([key, label, low, high]) => {
          const shown = text[key] ?? trimmed(head[key] as number);
          const value = parseNumber(shown);
          const wrong = value === null || value < low || value > high;
          return (
            <label key={key} style={{ display: "grid", gap: 2, fontSize: 12.5 }}>
              {label}
              <input
                value={shown}
                inputMode="decimal"
                aria-invalid={wrong}
                style={{
                  width: 84,
                  height: 36,
                  padding: "0 10px",
                  font: "inherit",
                  fontSize: 15,
                  border: `1px solid ${wrong ? "var(--rust)" : "var(--line)"}`,
                  background: "var(--paper)",
                  color: "var(--ink)",
                }}
                onChange={(e) => {
                  const next = e.currentTarget.value;
                  setText({ ...text, [key]: next });
                  const number = parseNumber(next);
                  if (number !== null && number >= low && number <= high) onChange({ ...head, [key]: number });
                }}
              />
              {wrong && <span style={{ color: "var(--rust)", fontWeight: 600 }}>{`${low} to ${high}`}</span>}
            </label>
          );
        })}
      </div>
    </fieldset>
  );
}
