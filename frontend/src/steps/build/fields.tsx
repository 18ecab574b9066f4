import { TextInput } from "@mantine/core";
import { useState } from "react";
import { TABLES } from "../../api/tables";
import { between } from "../../units/limits";
import { parseNumber, trimmed } from "../../units/units";
import parts from "../parts/parts.module.css";

type Limit = { low: number; high: number };

const LIMITS = TABLES.build as Record<string, Limit>;

/** The range of a figure of the build. */
export const limit = (key: string) => ({ ...(LIMITS[key] ?? { low: 0, high: 0 }), places: 2 });

/** Bends of the head's life before, as numbers with signs between spaces. */
export function BentBefore({ value, onChange }: { value: readonly number[]; onChange: (value: number[]) => void }) {
  const [text, setText] = useState<string | null>(null);
  const numbers = (typed: string) =>
    typed
      .split(/[\s;]+/)
      .filter(Boolean)
      .map((one) => parseNumber(one) ?? Number.NaN);
  const shown = text ?? value.map((one) => trimmed(one, 2)).join(" ");
  const { low, high } = limit("bent_deg");
  const found = numbers(shown);
  const most = TABLES.most.bends_before;
  const wrong = found.some(Number.isNaN)
    ? "as 1 −0.5"
    : found.some((one) => one < low || one > high)
      ? `each ${between(low, high)}°`
      : found.length > most
        ? `at most ${most}`
        : null;
  return (
    <TextInput
      label="Bent before"
      value={shown}
      style={{ width: 130 }}
      rightSection={<span className={parts.unit}>°</span>}
      error={wrong}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={() => {
        if (wrong !== null || text === null) return;
        onChange(numbers(text));
        setText(null);
      }}
    />
  );
}

/** A figure that was read, or none. */
export function Reading({
  label,
  unit,
  value,
  bound,
  onChange,
}: {
  label: string;
  unit: string;
  value: number | null;
  bound: Limit;
  onChange: (value: number | null) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? (value === null ? "" : trimmed(value, 2));
  const number = parseNumber(shown);
  const wrong = shown.trim() !== "" && (number === null || number < bound.low || number > bound.high);
  return (
    <TextInput
      label={label}
      value={shown}
      placeholder="not read"
      inputMode="decimal"
      style={{ width: 130 }}
      rightSection={<span className={parts.unit}>{unit}</span>}
      error={wrong ? between(bound.low, bound.high) : undefined}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={() => {
        if (wrong || text === null) return;
        onChange(number);
        setText(null);
      }}
    />
  );
}

/** A swing weight that is wished or was read, or none. */
export function SwingWeight({
  label,
  empty,
  value,
  onChange,
}: {
  label: string;
  empty: string;
  value: string | null;
  onChange: (value: string | null) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? value ?? "";
  const typed = shown.trim().toUpperCase().replace(",", ".");
  const wrong = typed !== "" && !/^[A-G]\d(\.\d)?$/.test(typed);
  return (
    <TextInput
      label={label}
      value={shown}
      placeholder={empty}
      style={{ width: 150 }}
      error={wrong ? "as D4" : undefined}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={() => {
        if (wrong || text === null) return;
        onChange(typed === "" ? null : typed);
        setText(null);
      }}
    />
  );
}
