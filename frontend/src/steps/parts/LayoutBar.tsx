import { Select } from "@mantine/core";
import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { optionsOf, TABLES } from "../../api/tables";
import { counted } from "../../units/units";
import classes from "./LayoutBar.module.css";
import { PlainNumber } from "./PlainNumber";

export type Layout = Schemas["LayoutDocument"];

interface Props {
  /** How the file was read. */
  read: Schemas["LayoutOut"];
  /** What of it was chosen here. */
  layout: Layout;
  onLayout: (layout: Layout) => void;
  children?: ReactNode;
}

/** How a file was read: sheet or separator and encoding, and the line of its header. Found out, and changed here. */
export function LayoutBar({ read, layout, onLayout, children }: Props) {
  const anew = { ...layout, header_row: null };
  return (
    <div className={classes.layout}>
      {read.kind === "xlsx" ? (
        <Select
          label="Sheet"
          size="xs"
          w={170}
          allowDeselect={false}
          value={read.sheet}
          data={read.sheets}
          onChange={(sheet) => sheet && onLayout({ sheet })}
        />
      ) : (
        <>
          <Select
            label="Separator"
            size="xs"
            w={130}
            allowDeselect={false}
            value={read.delimiter}
            data={TABLES.delimiters}
            onChange={(value) => onLayout({ ...anew, delimiter: value as Layout["delimiter"] })}
          />
          <Select
            label="Encoding"
            size="xs"
            w={190}
            allowDeselect={false}
            value={read.encoding}
            data={optionsOf(TABLES.encodings)}
            onChange={(value) => onLayout({ ...anew, encoding: value as Layout["encoding"] })}
          />
        </>
      )}
      <PlainNumber
        key={read.header_row}
        label="Header in line"
        unit=""
        width={96}
        value={read.header_row}
        low={0}
        high={1000}
        whole
        onChange={(value) => onLayout({ ...layout, header_row: value })}
      />
      {children}
      {read.formulas > 0 && (
        <span className={classes.note}>
          Formulas in {counted(read.formulas, "cell")}: what they gave when the file was saved is read.
        </span>
      )}
    </div>
  );
}
