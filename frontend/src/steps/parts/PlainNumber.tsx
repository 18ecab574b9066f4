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
  /** A count: nothing but whole numbers. */
  whole?: boolean;
}

/** A number that is asked with and not saved: outside its range it is said here and not sent. */
export function PlainNumber({
  label,
  unit,
  value,
  low,
  high,
  onChange,
  width = 130,
  places = 1,
  whole = false,
}: Props) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? trimmed(value, places);
  const fits = (number: number | null): number is number =>
    number !== null && number >= low && number <= high && (!whole || Number.isInteger(number));
  const wrong = !fits(parseNumber(shown));
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
      error={wrong ? `${whole ? "whole, " : ""}${between(low, high)}\u00a0${unit}`.trim() : undefined}
      onChange={(event) => {
        const next = event.currentTarget.value;
        setText(next);
        const typed = parseNumber(next);
        if (fits(typed)) onChange(typed);
      }}
      onBlur={() => {
        if (!wrong) setText(null);
      }}
    />
  );
}
