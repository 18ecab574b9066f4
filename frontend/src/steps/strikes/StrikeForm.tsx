import { Button } from "@mantine/core";
import { type FormEvent, useRef, useState } from "react";
import type { Strike } from "../../api/client";
import { figureOf, TABLES } from "../../api/tables";
import { useUnits } from "../../app/context";
import {
  fromDistance,
  fromSpeed,
  inDistance,
  inSpeed,
  metres,
  metresPerSecond,
  parseNumber,
  plain,
  SPEED_LABEL,
} from "../../units/units";
import classes from "./Strikes.module.css";

type Figures = Partial<Strike>;
type Name = "entry_mm" | "attack_deg" | "lean_deg" | "club_speed_mps" | "carry_m";

/** A strike typed by hand: whatever was measured; Enter takes it and the first field waits for the next. */
export function StrikeForm({ onTake }: { onTake: (figures: Figures) => void }) {
  const units = useUnits();
  const first = useRef<HTMLInputElement>(null);
  const [text, setText] = useState<Partial<Record<Name, string>>>({});
  const fields: readonly (readonly [Name, string, string, (value: number) => number, (value: number) => number])[] = [
    ["entry_mm", "Entry", "mm", same, same],
    ["attack_deg", "Attack", "°", same, same],
    ["lean_deg", "Lean", "°", same, same],
    [
      "club_speed_mps",
      "Speed",
      SPEED_LABEL[units.speed],
      (v) => fromSpeed(v, units.speed),
      (v) => inSpeed(metresPerSecond(v), units.speed),
    ],
    [
      "carry_m",
      "Carry",
      units.distance,
      (v) => fromDistance(v, units.distance),
      (v) => inDistance(metres(v), units.distance),
    ],
  ];
  const wrong = (name: Name, from: (value: number) => number, to: (value: number) => number) => {
    const typed = text[name]?.trim() ?? "";
    if (typed === "") return null;
    const number = parseNumber(typed);
    const { low, high } = figureOf(TABLES.strike, name);
    if (number === null) return "must be a number";
    return from(number) < low || from(number) > high ? `${plain(to(low))} to ${plain(to(high))}` : null;
  };
  const bad = fields.some(([name, , , from, to]) => wrong(name, from, to) !== null);
  const empty = fields.every(([name]) => (text[name]?.trim() ?? "") === "");
  const take = (event: FormEvent) => {
    event.preventDefault();
    if (bad || empty) return;
    const figures: Figures = {};
    for (const [name, , , from] of fields) {
      const number = parseNumber(text[name] ?? "");
      if (number !== null) figures[name] = from(number);
    }
    onTake(figures);
    setText({});
    first.current?.focus();
  };
  return (
    <form className={classes.form} onSubmit={take} aria-label="A strike by hand">
      <div className={classes.fields}>
        {fields.map(([name, label, unit, from, to], i) => {
          const fault = wrong(name, from, to);
          return (
            <label key={name}>
              {label}, {unit}
              <input
                ref={i === 0 ? first : undefined}
                value={text[name] ?? ""}
                inputMode="decimal"
                autoComplete="off"
                aria-invalid={fault !== null}
                onChange={(event) => setText({ ...text, [name]: event.currentTarget.value })}
              />
              {fault && <span role="alert">{fault}</span>}
            </label>
          );
        })}
      </div>
      <div>
        <Button type="submit" size="xs" disabled={bad || empty}>
          Take strike
        </Button>
      </div>
    </form>
  );
}

const same = (value: number) => value;
