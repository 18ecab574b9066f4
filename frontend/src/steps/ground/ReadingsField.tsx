import { TextInput } from "@mantine/core";
import { useEffect, useEffectEvent } from "react";
import { useStore } from "../../app/context";
import { useTyped } from "../../app/useTyped";
import { parseNumber, trimmed } from "../../units/units";

interface Props {
  label: string;
  path: string;
  values: readonly number[];
  /** What the readings say, from the server. */
  says: string;
  places: number;
  onChange: (values: number[]) => void;
}

/**
 * Several readings of one place, typed with spaces between them; they are taken on Enter or on leaving the field. What is
 * being typed stays where others come to stand there, from another screen or by Undo, and those are told beside it.
 */
export function ReadingsField({ label, path, values, says, places, onChange }: Props) {
  const { faults } = useStore();
  const shown = values.map((v) => trimmed(v, places)).join("  ");
  const [typed, setTyped] = useTyped(path, shown);
  const text = typed?.text ?? shown;
  const meanwhile = typed && typed.over !== shown ? `stands there meanwhile: ${shown || "none"}` : "";
  const parts = text.split(/[;\s]+/).filter(Boolean);
  const wrong = parts.find((part) => parseNumber(part) === null);
  const fault = faults.find((f) => f.field.startsWith(path));
  const take = () => {
    if (typed === null || wrong !== undefined) return;
    if (text !== shown) onChange(parts.map((part) => parseNumber(part) ?? 0));
    setTyped(null);
  };
  const takeWhatWasLeft = useEffectEvent(take);
  useEffect(() => takeWhatWasLeft(), []);
  return (
    <TextInput
      label={label}
      value={text}
      style={{ width: 250 }}
      placeholder="one reading after another"
      autoComplete="off"
      error={wrong !== undefined ? `${wrong} is not a number` : fault?.message}
      description={meanwhile || says || undefined}
      inputWrapperOrder={["label", "input", "error", "description"]}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === "Enter") take();
        if (event.key === "Escape") setTyped(null);
      }}
    />
  );
}
