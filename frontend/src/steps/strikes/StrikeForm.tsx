import { Button } from "@mantine/core";
import { type FormEvent, useRef } from "react";
import type { Strike } from "../../api/client";
import { type Figure, figureOf, TABLES } from "../../api/tables";
import { useUnits } from "../../app/context";
import { useRemembered } from "../../app/useRemembered";
import { faultOf } from "../../units/limits";
import { parseNumber, signOf, toDocument } from "../../units/units";
import classes from "./Strikes.module.css";

type Figures = Partial<Strike>;
/** What is typed, in the order of the fields; all else comes from a device or a file. */
const TYPED = ["entry_mm", "attack_deg", "lean_deg", "club_speed_mps", "carry_m"] as const;
type Name = (typeof TYPED)[number];
const FIELDS = TYPED.map((name) => [name, figureOf(TABLES.strike, name)] as const);

const NOTHING: Partial<Record<Name, string>> = {};

/**
 * A strike typed by hand: whatever was measured; Enter takes it and the first field waits for the next. `of` is the station
 * and the club that it is of.
 */
export function StrikeForm({ of, onTake }: { of: string; onTake: (figures: Figures) => void }) {
  const units = useUnits();
  const first = useRef<HTMLInputElement>(null);
  const [text, setText] = useRemembered(`strike-${of}-${units.distance}-${units.speed}`, NOTHING);
  const wrong = (name: Name, figure: Figure) => faultOf(text[name] ?? "", figure, units);
  const bad = FIELDS.some(([name, figure]) => wrong(name, figure) !== null);
  const empty = FIELDS.every(([name]) => (text[name]?.trim() ?? "") === "");
  const take = (event: FormEvent) => {
    event.preventDefault();
    if (bad || empty) return;
    const figures: Figures = {};
    for (const [name, figure] of FIELDS) {
      const number = parseNumber(text[name] ?? "");
      if (number !== null) figures[name] = toDocument(figure, number, units);
    }
    onTake(figures);
    setText(NOTHING);
    first.current?.focus();
  };
  return (
    <form className={classes.form} onSubmit={take} aria-label="A strike by hand">
      <div className={classes.fields}>
        {FIELDS.map(([name, figure], i) => {
          const fault = wrong(name, figure);
          return (
            <label key={name}>
              {figure.words}, {signOf(figure.unit, units)}
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
