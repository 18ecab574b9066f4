import { Checkbox, TextInput } from "@mantine/core";
import { TABLES } from "../../api/tables";

interface Props {
  keep: boolean;
  name: string;
  onKeep: (keep: boolean) => void;
  onName: (name: string) => void;
}

/** Whether the mapping of a file is saved with it, and under which name. */
export function KeepMapping({ keep, name, onKeep, onName }: Props) {
  return (
    <>
      <Checkbox
        label="and save the mapping as"
        checked={keep}
        onChange={(event) => onKeep(event.currentTarget.checked)}
      />
      <TextInput
        aria-label="Name of the mapping"
        size="xs"
        w={180}
        maxLength={TABLES.most.mapping_name}
        value={name}
        disabled={!keep}
        onChange={(event) => onName(event.currentTarget.value)}
      />
    </>
  );
}
