import { TextInput } from "@mantine/core";
import { useState } from "react";
import { useTyped } from "../../app/useTyped";
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
  /** The number is of what is saved: text that is wrong is kept, by the label. */
  saved?: boolean;
}

/** A number whose range is known here: outside of it that is said and the number is not sent. */
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
  saved = false,
}: Props) {
  const stands = trimmed(value, places);
  const [unread, setUnread] = useTyped(saved ? label : null, stands);
  const [text, setText] = useState(unread?.text ?? null);
  const shown = text ?? stands;
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
      error={wrong ? `${whole ? "whole, " : ""}${between(low, high, unit)}` : undefined}
      onChange={(event) => {
        const next = event.currentTarget.value;
        setText(next);
        const typed = parseNumber(next);
        setUnread(fits(typed) ? null : next);
        if (fits(typed)) onChange(typed);
      }}
      onBlur={() => {
        if (!wrong) setText(null);
      }}
    />
  );
}
