import { TextInput } from "@mantine/core";
import { useState } from "react";
import { between } from "../../units/limits";
import { parseNumber, trimmed } from "../../units/units";
import classes from "./parts.module.css";

interface Props {
  label: string;
  unit: string;
  value: number;
  low: number;
  high: number;
  onChange: (value: number) => void;
  width?: number;
  places?: number;
}

/** A number that is asked with and not saved: outside its range it is said here and not sent. */
export function PlainNumber({ label, unit, value, low, high, onChange, width = 130, places = 1 }: Props) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? trimmed(value, places);
  const number = parseNumber(shown);
  const wrong = number === null || number < low || number > high;
  return (
    <TextInput
      label={label}
      value={shown}
      style={{ width }}
      inputMode="decimal"
      autoComplete="off"
      rightSection={<span className={classes.unit}>{unit}</span>}
      rightSectionWidth={unit.length * 7 + 12}
      rightSectionPointerEvents="none"
      error={wrong ? `${between(low, high)}\u00a0${unit}`.trim() : undefined}
      onChange={(event) => {
        const next = event.currentTarget.value;
        setText(next);
        const typed = parseNumber(next);
        if (typed !== null && typed >= low && typed <= high) onChange(typed);
      }}
      onBlur={() => {
        if (!wrong) setText(null);
      }}
    />
  );
}
