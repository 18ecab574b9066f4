import type { Figure } from "../../api/tables";
import { useUnits } from "../../app/context";
import { inReader, signOf, toDocument } from "../../units/units";
import { NumberField } from "./NumberField";

interface Props {
  figure: Figure;
  path: string;
  value: number;
  onChange: (value: number) => void;
}

/** A figure of the document as its record has it: name, unit in the reader's, range, decimals. */
export function FigureField({ figure, path, value, onChange }: Props) {
  const units = useUnits();
  const sign = signOf(figure.unit, units);
  return (
    <NumberField
      label={figure.words}
      unit={sign}
      width={Math.max(104, 8 * figure.words.length, 70 + 9 * sign.length)}
      places={figure.places}
      path={path}
      value={inReader(figure, value, units)}
      onChange={(typed) => typed !== null && onChange(toDocument(figure, typed, units))}
      note={figure.unit === "" && figure.usual !== null ? `${figure.usual} is usual` : undefined}
    />
  );
}
