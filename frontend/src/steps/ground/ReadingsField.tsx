import { TextInput } from "@mantine/core";
import { useEffect, useState } from "react";
import { useStore } from "../../app/context";
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

/** Several readings of one place, typed with spaces between them; they are taken on Enter or on leaving the field. */
export function ReadingsField({ label, path, values, says, places, onChange }: Props) {
  const { faults } = useStore();
  const shown = values.map((v) => trimmed(v, places)).join("  ");
  const [text, setText] = useState(shown);
  useEffect(() => setText(shown), [shown]);
  const parts = text.split(/[;\s]+/).filter(Boolean);
  const wrong = parts.find((part) => parseNumber(part) === null);
  const fault = faults.find((f) => f.field.startsWith(path));
  const take = () => {
    if (wrong === undefined) onChange(parts.map((part) => parseNumber(part) ?? 0));
  };
  return (
    <TextInput
      label={label}
      value={text}
      style={{ width: 250 }}
      placeholder="one reading after another"
      autoComplete="off"
      error={wrong !== undefined ? `${wrong} is not a number` : fault?.message}
      description={says || undefined}
      inputWrapperOrder={["label", "input", "error", "description"]}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={() => text !== shown && take()}
      onKeyDown={(event) => event.key === "Enter" && take()}
    />
  );
}
