import { useState } from "react";
import { fromDistance, inDistance, metres, plain } from "../units/units";
import type { Page } from "./usePage";

interface SlideProps {
  label: string;
  value: number | null;
  low: number;
  high: number;
  unit: Page["distance"];
  onChange: (metres: number) => void;
}

/** A distance by slider: told once the finger lets go, or is taken away: a phone that begins to scroll takes it. */
export function Slide({ label, value, low, high, unit, onChange }: SlideProps) {
  const [at, setAt] = useState(value === null ? null : inDistance(metres(value), unit));
  const shown = at ?? inDistance(metres((low + high) / 8), unit);
  const letGo = () => {
    if (at === null) return;
    const told = fromDistance(Math.round(at), unit);
    if (value === null || Math.abs(told - value) > 1e-6) onChange(told); // a key that moves nothing tells nothing
  };
  return (
    <label className="slide">
      <span>
        {label}
        <strong>{at === null ? "not paced" : `${plain(at)}\u00a0${unit}`}</strong>
      </span>
      <input
        type="range"
        min={Math.round(inDistance(metres(low), unit))}
        max={Math.round(inDistance(metres(high), unit))}
        step={1}
        value={Math.round(shown)}
        onChange={(event) => setAt(Number(event.currentTarget.value))}
        onPointerUp={letGo}
        onPointerCancel={letGo}
        onKeyUp={letGo}
        onBlur={letGo}
      />
    </label>
  );
}
