import type { Schemas } from "../../api/client";
import { CopyTable } from "./CopyTable";

/** The head of a file as it was read. */
export function FirstRows({ table }: { table: Pick<Schemas["TableOut"], "header" | "first"> }) {
  return (
    <CopyTable caption="First rows">
      <thead>
        <tr>
          {table.header.map((title, n) => (
            <th key={n}>{title}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {table.first.map((row, n) => (
          <tr key={n}>
            {row.map((cell, at) => (
              <td key={at}>{cell}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </CopyTable>
  );
}
