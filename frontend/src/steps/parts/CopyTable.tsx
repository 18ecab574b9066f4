import { unparse } from "papaparse";
import { type ReactNode, useRef, useState } from "react";
import classes from "./parts.module.css";
import { Wide } from "./Wide";

/** A table with its caption, and a button that copies it as CSV. */
export function CopyTable({ caption, children }: { caption: string; children: ReactNode }) {
  const table = useRef<HTMLTableElement>(null);
  const [said, setSaid] = useState("");
  const copy = async () => {
    const rows = [...(table.current?.rows ?? [])].map((row) =>
      [...row.cells].map((cell) => cellOf(cell.textContent ?? "")),
    );
    try {
      await navigator.clipboard.writeText(unparse(rows, { escapeFormulae: true, newline: "\n" }));
      setSaid("copied");
    } catch {
      setSaid("the browser does not allow copying here");
    }
  };
  return (
    <div className={classes.tableBox}>
      <div className={classes.tableHead}>
        <h2>{caption}</h2>
        <span role="status">{said}</span>
        <button type="button" className={classes.quietButton} onClick={copy}>
          Copy as CSV
        </button>
      </div>
      <Wide label={`${caption}, table`}>
        <table ref={table} className={classes.table} aria-label={caption}>
          {children}
        </table>
      </Wide>
    </div>
  );
}

/** A cell's figure as a number, or its words; the library makes text of what a spreadsheet would run as a formula. */
function cellOf(text: string): string | number {
  const tidy = text.replace(/\s+/g, " ").trim();
  const plain = tidy.replace("−", "-");
  return /^[+-]?\d+(\.\d+)?$/.test(plain) ? Number(plain) : tidy;
}
