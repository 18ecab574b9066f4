import { Slider } from "@mantine/core";
import { figureOf, surfaceOf, TABLES } from "../api/tables";
import { useUnits } from "../app/context";
import { entryRange } from "../pictures/scales";
import { metresPerSecond, plain, showSpeed, trimmed } from "../units/units";
import classes from "./Desk.module.css";
import type { Setup } from "./setup";

interface Props {
  setup: Setup;
  onChange: (setup: Setup) => void;
  /** What the dials stand at when nothing was turned, said under each. */
  home: Setup;
}

const SWING = Object.fromEntries(TABLES.swing.map((figure) => [figure.key, figure]));

/** Lean, attack, opening, entry, speed and ground: turn one and the pictures follow. */
export function Dials({ setup, onChange, home }: Props) {
  const units = useUnits();
  const set = (change: Partial<Setup>) => onChange({ ...setup, ...change });
  const surface = surfaceOf(setup.ground.kind);
  const reading = figureOf(surface.figures, surface.reading);
  const ground = setup.ground as unknown as Record<string, number>;
  const at = home.ground.kind === setup.ground.kind ? (home.ground as unknown as Record<string, number>) : null;
  const [first, last] = entryRange(setup.ground.kind === "sand");
  const signed = (v: number, more: string, less: string) =>
    Math.abs(v) < 0.05 ? "level" : `${trimmed(Math.abs(v))}° ${v > 0 ? more : less}`;
  const speed = (v: number) => showSpeed(metresPerSecond(v), units.speed, 0);
  const shown = (v: number) => `${plain(v, reading.places)}\u00a0${reading.unit}`;
  return (
    <div className={classes.dials}>
      <Dial
        {...rangeOf("lean_deg")}
        shown={signed(setup.lean_deg, "ahead", "behind")}
        home={`${trimmed(home.lean_deg)}°`}
        step={0.5}
        value={setup.lean_deg}
        onChange={(v) => set({ lean_deg: v })}
      />
      <Dial
        {...rangeOf("attack_deg")}
        shown={signed(setup.attack_deg, "up", "down")}
        home={`${trimmed(home.attack_deg)}°`}
        step={0.5}
        value={setup.attack_deg}
        onChange={(v) => set({ attack_deg: v })}
      />
      <Dial
        {...rangeOf("opening_deg")}
        shown={setup.opening_deg === 0 ? "square" : `${trimmed(setup.opening_deg)}°`}
        home={`${trimmed(home.opening_deg)}°`}
        step={1}
        value={setup.opening_deg}
        onChange={(v) => set({ opening_deg: v })}
      />
      <Dial
        {...rangeOf("entry_mm")}
        shown={`${plain(Math.abs(setup.entry_mm))}\u00a0mm ${setup.entry_mm <= 0 ? "behind" : "ahead"}`}
        home={`${plain(home.entry_mm)}\u00a0mm`}
        min={first}
        max={last}
        step={1}
        value={setup.entry_mm}
        onChange={(v) => set({ entry_mm: v })}
      />
      <Dial
        {...rangeOf("speed_mps")}
        shown={speed(setup.speed_mps)}
        home={speed(home.speed_mps)}
        step={1}
        value={setup.speed_mps}
        onChange={(v) => set({ speed_mps: v })}
      />
      <Dial
        label={reading.words}
        min={reading.low}
        max={reading.high}
        shown={shown(ground[surface.reading] ?? 0)}
        home={at ? shown(at[surface.reading] ?? 0) : ""}
        step={reading.places === 0 ? 1 : 0.05}
        value={ground[surface.reading] ?? 0}
        onChange={(v) => set({ ground: { ...setup.ground, [surface.reading]: v } as Setup["ground"] })}
      />
    </div>
  );
}

function rangeOf(key: string) {
  const figure = SWING[key];
  return { label: figure?.words ?? key, min: figure?.low ?? 0, max: figure?.high ?? 0 };
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
