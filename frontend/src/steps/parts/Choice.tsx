import { SegmentedControl } from "@mantine/core";
import { useId } from "react";
import { useFault } from "../../app/context";
import classes from "./parts.module.css";

interface Props<T extends string> {
  label: string;
  path?: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
}

/** One of a few words, all in sight. */
export function Choice<T extends string>({ label, path = "", value, options, onChange }: Props<T>) {
  const id = useId();
  const fault = useFault(path);
  return (
    <div className={classes.choice}>
      <span id={id} className={classes.label}>
        {label}
      </span>
      <SegmentedControl
        aria-labelledby={id}
        value={value}
        data={options.map(([key, text]) => ({ value: key, label: text }))}
        onChange={(next) => onChange(next as T)}
      />
      {fault && (
        <span role="alert" className={classes.error}>
          {fault.message}
        </span>
      )}
    </div>
  );
}
