import { Checkbox, Select } from "@mantine/core";
import { optionsOf, TABLES } from "../../api/tables";
import { counted } from "../../units/units";
import { Choice } from "../parts/Choice";
import { PlainNumber } from "../parts/PlainNumber";
import classes from "./Import.module.css";
import type { Draft, Look } from "./mapping";

interface Props {
  look: Look;
  draft: Draft;
  onLayout: (layout: Draft["layout"]) => void;
  onChange: (draft: Draft) => void;
}

/** How the file was read: sheet or delimiter and encoding, header line, decimal mark. Found out, and changed here. */
export function LayoutBar({ look, draft, onLayout, onChange }: Props) {
  const layout = { ...draft.layout, header_row: draft.layout.header_row ?? null };
  return (
    <div className={classes.layout}>
      {look.kind === "xlsx" ? (
        <Select
          label="Sheet"
          size="xs"
          w={170}
          allowDeselect={false}
          value={look.sheet}
          data={look.sheets}
          onChange={(sheet) => sheet && onLayout({ sheet })}
        />
      ) : (
        <>
          <Select
            label="Separator"
            size="xs"
            w={130}
            allowDeselect={false}
            value={look.delimiter}
            data={TABLES.delimiters}
            onChange={(value) =>
              onLayout({ ...layout, delimiter: value as Draft["layout"]["delimiter"], header_row: null })
            }
          />
          <Select
            label="Encoding"
            size="xs"
            w={190}
            allowDeselect={false}
            value={look.encoding}
            data={optionsOf(TABLES.encodings)}
            onChange={(value) =>
              onLayout({ ...layout, encoding: value as Draft["layout"]["encoding"], header_row: null })
            }
          />
        </>
      )}
      <PlainNumber
        key={look.header_row}
        label="Header in line"
        unit=""
        width={96}
        value={look.header_row}
        low={0}
        high={1000}
        onChange={(value) => onLayout({ ...layout, header_row: Math.round(value) })}
      />
      <Choice
        label="Decimal mark"
        value={draft.decimal}
        options={[
          ["point", "1.5"],
          ["comma", "1,5"],
        ]}
        onChange={(decimal) => onChange({ ...draft, decimal })}
      />
      <Checkbox
        className={classes.fill}
        label="an empty club or swing is the one above"
        checked={draft.fill_down}
        onChange={(event) => onChange({ ...draft, fill_down: event.currentTarget.checked })}
      />
      {look.saved_as && <span className={classes.note}>Mapped as “{look.saved_as}”, saved earlier.</span>}
      {look.formulas > 0 && (
        <span className={classes.note}>
          Formulas in {counted(look.formulas, "cell")}: what they gave when the file was saved is read.
        </span>
      )}
    </div>
  );
}
