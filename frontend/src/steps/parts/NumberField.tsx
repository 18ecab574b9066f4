import { TextInput } from "@mantine/core";
import { memo, useEffect, useId, useState } from "react";
import { useFault } from "../../app/context";
import { useTyped } from "../../app/useTyped";
import { parseNumber, trimmed } from "../../units/units";
import classes from "./parts.module.css";
import { useNewest } from "./useNewest";

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

/** A number with its unit. What is typed stays as it was typed; text that is no number is said so, kept and not sent. */
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
  const [unread, setUnread] = useTyped(path, show(value, places));
  const [text, setText] = useState(() => unread?.text ?? show(value, places));
  const [typing, setTyping] = useState(unread !== null);
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
    const taken = number !== null || (next.trim() === "" && optional);
    setUnread(taken ? null : next);
    if (taken) onChange(number);
  };

  const leave = () => {
    if (parsed !== null || (blank && optional)) setTyping(false);
  };
  const putBack = () => {
    setTyping(false);
    setUnread(null);
    setText(show(value, places));
  };
  return (
    <Drawn
      id={id}
      label={hideLabel ? undefined : (shown ?? label)}
      spoken={hideLabel || shown ? label : undefined}
      text={text}
      width={width}
      placeholder={placeholder}
      unit={unit}
      error={wrong ?? fault?.message}
      note={note}
      onType={useNewest(change)}
      onLeave={useNewest(leave)}
      onEscape={useNewest(putBack)}
    />
  );
}

interface DrawnProps {
  id: string;
  label?: string;
  spoken?: string;
  text: string;
  width?: number;
  placeholder?: string;
  unit: string;
  error?: string;
  note?: string;
  onType: (text: string) => void;
  onLeave: () => void;
  onEscape: () => void;
}

/** A step has dozens of fields, and an edit changes one or two: the others are not drawn anew. */
const Drawn = memo(function Drawn({
  id,
  label,
  spoken,
  text,
  width,
  placeholder,
  unit,
  error,
  note,
  onType,
  onLeave,
  onEscape,
}: DrawnProps) {
  return (
    <TextInput
      id={id}
      label={label}
      aria-label={spoken}
      value={text}
      style={{ width }}
      inputMode="decimal"
      autoComplete="off"
      placeholder={placeholder}
      rightSection={<span className={classes.unit}>{unit}</span>}
      rightSectionWidth={unit.length * 7 + 12}
      rightSectionPointerEvents="none"
      error={error}
      description={note}
      inputWrapperOrder={WRAPPED}
      onChange={(e) => onType(e.currentTarget.value)}
      onBlur={onLeave}
      onKeyDown={(e) => e.key === "Escape" && onEscape()}
    />
  );
});

const WRAPPED: ("label" | "input" | "error" | "description")[] = ["label", "input", "error", "description"];

function show(value: number | null, places: number) {
  return value === null ? "" : trimmed(value, places);
}
