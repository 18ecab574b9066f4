import { TextInput } from "@mantine/core";
import { useStore } from "../../app/context";
import { useTakenOnLeaving } from "../../app/useTyped";
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
  const field = useTakenOnLeaving(
    path,
    shown,
    (text) => {
      const wrong = partsOf(text).find((part) => parseNumber(part) === null);
      return wrong === undefined ? undefined : `${wrong} is not a number`;
    },
    (text) => {
      if (text !== shown) onChange(partsOf(text).map((part) => parseNumber(part) ?? 0));
    },
  );
  const meanwhile = field.over === shown ? "" : `stands there meanwhile: ${shown || "none"}`;
  const fault = faults.find((f) => f.field.startsWith(path));
  return (
    <TextInput
      label={label}
      value={field.text}
      style={{ width: 250 }}
      placeholder="one reading after another"
      autoComplete="off"
      error={field.wrong ?? fault?.message}
      description={meanwhile || says || undefined}
      inputWrapperOrder={["label", "input", "error", "description"]}
      onChange={(event) => field.type(event.currentTarget.value)}
      onBlur={field.take}
      onKeyDown={(event) => {
        if (event.key === "Enter") field.take();
        if (event.key === "Escape") field.type(null);
      }}
    />
  );
}

const partsOf = (text: string) => text.split(/[;\s]+/).filter(Boolean);
