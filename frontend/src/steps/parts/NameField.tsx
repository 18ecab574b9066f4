import { TextInput } from "@mantine/core";
import { type Ref, useState } from "react";
import { TABLES } from "../../api/tables";

interface Props {
  label: string;
  value: string;
  error?: string;
  ref?: Ref<HTMLInputElement>;
  onChange: (name: string) => void;
}

/**
 * A name. What is kept has no blanks around it, as on the server; the field keeps them while it is typed in, or the
 * answer that comes between two words would join them.
 */
export function NameField({ value, onChange, ...more }: Props) {
  const [typed, setTyped] = useState(value);
  return (
    <TextInput
      {...more}
      maxLength={TABLES.most.name}
      value={typed.trim() === value ? typed : value}
      onChange={(event) => {
        setTyped(event.currentTarget.value);
        onChange(event.currentTarget.value.trim());
      }}
      onBlur={() => setTyped(value)}
    />
  );
}
