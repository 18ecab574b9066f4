import { SegmentedControl } from "@mantine/core";
import { memo, useId } from "react";
import { useFault } from "../../app/context";
import { same } from "../../history/changes";
import classes from "./parts.module.css";
import { useNewest } from "./useNewest";

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
      <Drawn id={id} value={value} options={options} onChoose={useNewest((next: string) => onChange(next as T))} />
      {fault && (
        <span role="alert" className={classes.error}>
          {fault.message}
        </span>
      )}
    </div>
  );
}

interface DrawnProps {
  id: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onChoose: (value: string) => void;
}

/** Drawn anew when what it shows changes, not with every edit of the step. */
const Drawn = memo(function Drawn({ id, value, options, onChoose }: DrawnProps) {
  const data = options.map(([key, label]) => ({ value: key, label }));
  return <SegmentedControl aria-labelledby={id} value={value} data={data} onChange={onChoose} />;
}, same);
