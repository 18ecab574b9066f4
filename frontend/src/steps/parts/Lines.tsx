import { Textarea } from "@mantine/core";
import type { CSSProperties } from "react";
import classes from "./parts.module.css";

interface Props {
  label: string;
  description?: string;
  placeholder?: string;
  value: string;
  error?: string;
  /** Lines shown when there is little, and at most. */
  least?: number;
  most?: number;
  style?: CSSProperties;
  onChange: (text: string) => void;
}

/** Text of several lines. The browser itself lets the field grow: measuring it by program took 10 ms at every edit. */
export function Lines({ least = 2, most = 6, onChange, ...more }: Props) {
  return (
    <Textarea
      rows={least}
      classNames={{ input: classes.grows }}
      styles={{ input: { minHeight: tall(least), maxHeight: tall(most) } }}
      onChange={(event) => onChange(event.currentTarget.value)}
      {...more}
    />
  );
}

/** So many lines with what is around them. */
const tall = (lines: number) => `calc(${lines}lh + 18px)`;
