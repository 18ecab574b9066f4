import type { Fault } from "../../api/client";
import parts from "../parts/parts.module.css";
import classes from "./Import.module.css";
import { columnOfFault, type Draft, type Look, mappingOf, withField } from "./mapping";

interface Props {
  look: Look;
  draft: Draft;
  faults: readonly Fault[];
  onChange: (draft: Draft) => void;
}

/** Every column of the file: its name, its first cells, what it is, and the unit its numbers are in. */
export function Columns({ look, draft, faults, onChange }: Props) {
  const mapping = mappingOf(draft);
  return (
    <table className={`${parts.table} ${classes.columns}`} aria-label="Columns of the file">
      <thead>
        <tr>
          <th>Column</th>
          <th>First cells</th>
          <th>is</th>
          <th>in</th>
        </tr>
      </thead>
      <tbody>
        {look.columns.map((column) => {
          const use = draft.uses[column.column];
          const field = look.fields.find((f) => f.field === use?.field);
          const fault = faults.find((f) => columnOfFault(f.field, mapping) === column.column);
          const name = column.name || `column ${column.column}`;
          return (
            <tr key={column.column} data-used={use !== undefined}>
              <td>{name}</td>
              <td className={classes.samples}>{column.samples.join(" · ") || "empty"}</td>
              <td>
                <select
                  aria-label={`What ${name} is`}
                  value={use?.field ?? ""}
                  onChange={(event) =>
                    onChange(withField(draft, column.column, event.currentTarget.value, look.fields))
                  }
                >
                  <option value="">not used</option>
                  {look.fields.map((f) => (
                    <option key={f.field} value={f.field}>
                      {f.label}
                    </option>
                  ))}
                </select>
              </td>
              <td>
                {field && field.units.length > 0 && (
                  <select
                    aria-label={`Unit of ${name}`}
                    aria-invalid={fault !== undefined}
                    value={use?.unit ?? ""}
                    onChange={(event) =>
                      onChange({
                        ...draft,
                        uses: {
                          ...draft.uses,
                          [column.column]: { field: field.field, unit: event.currentTarget.value || null },
                        },
                      })
                    }
                  >
                    {use?.unit == null && <option value="">which unit?</option>}
                    {field.units.map((unit) => (
                      <option key={unit}>{unit}</option>
                    ))}
                  </select>
                )}
                {fault && (
                  <span role="alert" className={classes.fault}>
                    {fault.message}
                  </span>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
