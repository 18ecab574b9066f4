import { TextInput } from "@mantine/core";
import { TABLES } from "../../api/tables";
import { useTakenOnLeaving } from "../../app/useTyped";
import { between } from "../../units/limits";
import { parseNumber, trimmed } from "../../units/units";
import parts from "../parts/parts.module.css";

type Limit = { low: number; high: number };

const LIMITS = TABLES.build as Record<string, Limit>;

/** The range of a figure of the build. */
export const limit = (key: string) => ({ ...(LIMITS[key] ?? { low: 0, high: 0 }), places: 2 });

interface TypedProps {
  label: string;
  stands: string;
  wrong: (text: string) => string | undefined;
  onTake: (text: string) => void;
  width?: number;
  unit?: string;
  placeholder?: string;
  decimal?: boolean;
}

/** What is typed here is taken on leaving the field, or when the step is opened again; what is wrong is said and stays. */
function Typed({ label, stands, wrong, onTake, width = 130, unit, placeholder, decimal }: TypedProps) {
  const field = useTakenOnLeaving(label, stands, wrong, onTake);
  return (
    <TextInput
      label={label}
      value={field.text}
      placeholder={placeholder}
      inputMode={decimal ? "decimal" : undefined}
      style={{ width }}
      rightSection={unit && <span className={parts.unit}>{unit}</span>}
      error={field.wrong}
      onChange={(event) => field.type(event.currentTarget.value)}
      onBlur={field.take}
    />
  );
}

const numbersIn = (text: string) =>
  text
    .split(/[\s;]+/)
    .filter(Boolean)
    .map((one) => parseNumber(one) ?? Number.NaN);

/** Bends of the head's life before, as numbers with signs between spaces. */
export function BentBefore({ value, onChange }: { value: readonly number[]; onChange: (value: number[]) => void }) {
  const { low, high } = limit("bent_deg");
  const most = TABLES.most.bends_before;
  return (
    <Typed
      label="Bent before"
      unit="°"
      stands={value.map((one) => trimmed(one, 2)).join(" ")}
      wrong={(text) => {
        const found = numbersIn(text);
        if (found.some(Number.isNaN)) return "as 1 −0.5";
        if (found.some((one) => one < low || one > high)) return `each ${between(low, high, "°")}`;
        return found.length > most ? `at most ${most}` : undefined;
      }}
      onTake={(text) => onChange(numbersIn(text))}
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
  return (
    <Typed
      label={label}
      unit={unit}
      decimal
      placeholder="not read"
      stands={value === null ? "" : trimmed(value, 2)}
      wrong={(text) => {
        const number = parseNumber(text);
        const fits = number !== null && number >= bound.low && number <= bound.high;
        return text.trim() === "" || fits ? undefined : between(bound.low, bound.high, unit);
      }}
      onTake={(text) => onChange(parseNumber(text))}
    />
  );
}

const swingWeightIn = (text: string) => text.trim().toUpperCase().replace(",", ".");

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
  return (
    <Typed
      label={label}
      width={150}
      placeholder={empty}
      stands={value ?? ""}
      wrong={(text) => (/^([A-G]\d(\.\d)?)?$/.test(swingWeightIn(text)) ? undefined : "as D4")}
      onTake={(text) => onChange(swingWeightIn(text) || null)}
    />
  );
}
