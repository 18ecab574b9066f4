import { Slider } from "@mantine/core";
import { plain, trimmed } from "../units/units";
import classes from "./Desk.module.css";
import type { Setup } from "./setup";

interface Props {
  setup: Setup;
  onChange: (setup: Setup) => void;
  /** What the dials stand at when nothing was turned, said under each. */
  home: Setup;
}

/** Lean, attack, opening, entry, speed and ground: turn one and the pictures follow. */
export function Dials({ setup, onChange, home }: Props) {
  const set = (change: Partial<Setup>) => onChange({ ...setup, ...change });
  const { ground } = setup;
  const signed = (v: number, more: string, less: string) =>
    Math.abs(v) < 0.05 ? "level" : `${trimmed(Math.abs(v))}° ${v > 0 ? more : less}`;
  return (
    <div className={classes.dials}>
      <Dial
        label="Lean"
        shown={signed(setup.lean_deg, "ahead", "behind")}
        home={`${trimmed(home.lean_deg)}°`}
        min={-8}
        max={16}
        step={0.5}
        value={setup.lean_deg}
        onChange={(v) => set({ lean_deg: v })}
      />
      <Dial
        label="Attack"
        shown={`${trimmed(Math.abs(setup.attack_deg))}° down`}
        home={`${trimmed(home.attack_deg)}°`}
        min={-14}
        max={-0.5}
        step={0.5}
        value={setup.attack_deg}
        onChange={(v) => set({ attack_deg: v })}
      />
      <Dial
        label="Opening"
        shown={setup.opening_deg === 0 ? "square" : `${trimmed(setup.opening_deg)}°`}
        home={`${trimmed(home.opening_deg)}°`}
        min={-20}
        max={50}
        step={1}
        value={setup.opening_deg}
        onChange={(v) => set({ opening_deg: v })}
      />
      <Dial
        label="Entry"
        shown={`${plain(Math.abs(setup.entry_mm))} mm ${setup.entry_mm <= 0 ? "behind" : "ahead"}`}
        home={`${plain(home.entry_mm)} mm`}
        min={ground.kind === "sand" ? -145 : -115}
        max={ground.kind === "sand" ? 20 : 55}
        step={1}
        value={setup.entry_mm}
        onChange={(v) => set({ entry_mm: v })}
      />
      <Dial
        label="Head speed"
        shown={`${plain(setup.speed_mps)} m/s`}
        home={`${plain(home.speed_mps)}`}
        min={8}
        max={40}
        step={1}
        value={setup.speed_mps}
        onChange={(v) => set({ speed_mps: v })}
      />
      {ground.kind === "turf" ? (
        <Dial
          label="Firmness"
          shown={`${plain(ground.firmness_g)} g`}
          home={home.ground.kind === "turf" ? `${plain(home.ground.firmness_g)} g` : ""}
          min={35}
          max={180}
          step={1}
          value={ground.firmness_g}
          onChange={(v) => set({ ground: { ...ground, firmness_g: v } })}
        />
      ) : (
        <Dial
          label="Sand"
          shown={`${plain(ground.penetrometer_kg_cm2, 2)} kg/cm²`}
          home={home.ground.kind === "sand" ? plain(home.ground.penetrometer_kg_cm2, 2) : ""}
          min={1.2}
          max={3}
          step={0.05}
          value={ground.penetrometer_kg_cm2}
          onChange={(v) => set({ ground: { ...ground, penetrometer_kg_cm2: v } })}
        />
      )}
    </div>
  );
}

interface DialProps {
  label: string;
  shown: string;
  home: string;
  min: number;
  max: number;
  step: number;
  value: number;
  onChange: (value: number) => void;
}

function Dial({ label, shown, home, ...slider }: DialProps) {
  return (
    <div className={classes.dial}>
      <span className={classes.dialHead}>
        <span>{label}</span>
        <span>{home}</span>
      </span>
      <strong>{shown}</strong>
      <Slider {...slider} label={null} size={3} thumbLabel={label} thumbSize={16} />
    </div>
  );
}
