import { TextInput } from "@mantine/core";
import { useEffect, useId, useState } from "react";
import { useFault } from "../../app/context";
import { parseNumber, trimmed } from "../../units/units";
import classes from "./parts.module.css";

interface Props {
  label: string;
  /** No label is shown: it would repeat what stands beside the field. */
  hideLabel?: boolean;
  /** What is shown instead of the label where the rest of it stands above. */
  shown?: string;
  unit: string;
  /** Dotted path of the field in the document: the server's faults are shown here. */
  path: string;
  value: number | null;
  onChange: (value: number | null) => void;
  places?: number;
  /** Whether an empty field means "not known". */
  optional?: boolean;
  placeholder?: string;
  note?: string;
  width?: number;
}

/** A number with its unit. What is typed stays as it was typed; text that is no number is said so and not sent. */
export function NumberField({
  label,
  unit,
  path,
  value,
  onChange,
  places = 1,
  optional,
  placeholder,
  note,
  width,
  hideLabel,
  shown,
}: Props) {
  const id = useId();
  const fault = useFault(path);
  const [text, setText] = useState(() => show(value, places));
  const [typing, setTyping] = useState(false);
  useEffect(() => {
    if (!typing) setText(show(value, places));
  }, [value, places, typing]);
  const parsed = parseNumber(text);
  const blank = text.trim() === "";
  const wrong = typing && parsed === null && !(blank && optional) ? "must be a number" : undefined;

  const change = (next: string) => {
    setTyping(true);
    setText(next);
    const number = parseNumber(next);
    if (number !== null) onChange(number);
    else if (next.trim() === "" && optional) onChange(null);
  };

  return (
    <TextInput
      id={id}
      label={hideLabel ? undefined : (shown ?? label)}
      aria-label={hideLabel || shown ? label : undefined}
      value={text}
      style={{ width }}
      inputMode="decimal"
      autoComplete="off"
      placeholder={placeholder}
      rightSection={<span className={classes.unit}>{unit}</span>}
      rightSectionWidth={unit.length * 8 + 14}
      rightSectionPointerEvents="none"
      error={wrong ?? fault?.message}
      description={note}
      inputWrapperOrder={["label", "input", "error", "description"]}
      onChange={(e) => change(e.currentTarget.value)}
      onBlur={() => {
        if (parsed !== null || (blank && optional)) setTyping(false);
      }}
      onKeyDown={(e) => {
        if (e.key === "Escape") {
          setTyping(false);
          setText(show(value, places));
        }
      }}
    />
  );
}

function show(value: number | null, places: number) {
  return value === null ? "" : trimmed(value, places);
}
