import { useState } from "react";
import { FlagRuler } from "../pictures/FlagRuler/FlagRuler";
import { inDistance, metres, plain, trimmed } from "../units/units";
import { Pick } from "./Phone";
import type { Page } from "./usePage";

const WINDS = [
  ["into", "into"],
  ["still", "still"],
  ["helping", "helping"],
] as const;
const GREENS = [
  ["soft", "soft green"],
  ["medium", "medium"],
  ["firm", "firm"],
] as const;
const PINS = [
  ["front", "front flag"],
  ["middle", "middle"],
  ["back", "back"],
] as const;
const LIES = [
  ["dry", "dry lie"],
  ["wet", "wet"],
  ["rough", "rough"],
] as const;

/** Which club and swing for a distance: answers that came with the page, looked up. */
export function Far({ page }: { page: Page }) {
  const { far, distance } = page;
  const [at, setAt] = useState(() => Math.floor(far.distances_m.length / 2));
  const [wind, setWind] = useState("still");
  const [green, setGreen] = useState("medium");
  const [pin, setPin] = useState("middle");
  const [lie, setLie] = useState("dry");
  const read = (value: number) => inDistance(metres(value), distance);
  const shown = (value: number) => plain(read(value));
  const last = far.distances_m.length - 1;
  const step = (by: number) => setAt((before) => Math.min(Math.max(before + by, 0), last));
  const condition = far.conditions.findIndex(([w, g, l]) => w === wind && g === green && l === lie);
  const best = far.answers[condition]?.[far.pins.indexOf(pin)]?.[at] ?? [];
  const figures = far.figures_m[condition] ?? [];
  const told = (place: number) => {
    const [carry = 0, run = 0] = figures[place] ?? [];
    return { shot: far.shots[place], carry: shown(carry), run: shown(Math.max(run, 0)) };
  };
  const onRuler = (place: number) => {
    const [carry = 0, run = 0] = figures[place] ?? [];
    const shot = far.shots[place];
    return (
      shot && {
        name: `${trimmed(shot.loft_deg)}° ${shot.swing}`,
        short: `${trimmed(shot.loft_deg)}°`,
        carry: read(carry),
        rests: read(carry + Math.max(run, 0)),
      }
    );
  };
  return (
    <>
      <div className="far">
        <button type="button" aria-label="Shorter" onClick={() => step(-1)}>
          −
        </button>
        <h1 aria-live="polite">
          <strong>{shown(far.distances_m[at] ?? 0)}</strong>&nbsp;{distance} to the flag
        </h1>
        <button type="button" aria-label="Longer" onClick={() => step(1)}>
          +
        </button>
      </div>
      <div className="ruler">
        <FlagRuler
          distances={far.distances_m.map(read)}
          at={at}
          unit={distance}
          shots={best.flatMap((place) => onRuler(place) ?? [])}
          onMove={setAt}
        />
      </div>
      <Pick label="Wind" options={WINDS} value={wind} onPick={setWind} />
      <Pick label="Green" options={GREENS} value={green} onPick={setGreen} />
      <Pick label="Flag" options={PINS} value={pin} onPick={setPin} />
      <Pick label="Lie" options={LIES} value={lie} onPick={setLie} />
      <ol className="answers" aria-label="What to take">
        {best.map((place) => {
          const { shot, carry, run } = told(place);
          return (
            shot && (
              <li key={place}>
                <strong>
                  {trimmed(shot.loft_deg)}°, {shot.swing}
                </strong>
                <span>
                  {shot.club}: carries {carry}, runs {run}
                </span>
              </li>
            )
          );
        })}
      </ol>
    </>
  );
}
