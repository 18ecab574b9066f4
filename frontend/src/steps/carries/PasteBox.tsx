import { Button, SegmentedControl } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { v4 as newId } from "uuid";
import { api, type Cell, RequestError, unwrap } from "../../api/client";
import { useStore, useUnits } from "../../app/context";
import { counted, type DistanceUnit, inDistance, metres, plain } from "../../units/units";
import { Lines } from "../parts/Lines";
import classes from "./Carries.module.css";
import { nameOf } from "./Finder";

/** Strikes pasted from a spreadsheet: looked at first, then taken all or none. */
export function PasteBox({ cell }: { cell: Cell | null }) {
  const store = useStore();
  const units = useUnits();
  const client = useQueryClient();
  const [text, setText] = useState("");
  const shown = useRef("");
  const [unit, setUnit] = useState<DistanceUnit>(units.distance);
  const [pasteId, setPasteId] = useState(() => newId());
  const [sure, setSure] = useState(false);
  const paste = useMutation({
    mutationFn: ({ text, take }: { text: string; take: boolean }) =>
      unwrap(
        api.POST("/api/fittings/{fitting_id}/strikes/paste", {
          params: { path: { fitting_id: store.server.id } },
          body: {
            text,
            unit,
            paste_id: pasteId,
            cell: cell ? { club: cell.club, loft_deg: cell.loft_deg, swing: cell.swing } : null,
            take,
            sure_of_unit: sure,
          },
        }),
      ),
    onSuccess: (found, sent) => {
      if (found.taken === 0) return;
      // what was pasted since is another paste
      if (shown.current === sent.text) begin("");
      client.invalidateQueries({ queryKey: ["carries", store.server.id] });
      store.refresh();
    },
  });
  const begin = (next: string) => {
    shown.current = next;
    setText(next);
    setSure(false);
    setPasteId(newId());
  };
  const change = (next: string) => {
    begin(next);
    paste.reset();
  };
  const found = paste.data;
  const carries = found?.strikes.flatMap(({ carry_m }) => (carry_m == null ? [] : [carry_m])) ?? [];
  const faults = paste.error instanceof RequestError ? (paste.error.body?.faults ?? []) : [];
  return (
    <section className={classes.paste} aria-label="Paste strikes">
      <Lines
        label="Paste from a spreadsheet"
        description={`Carries alone go to ${cell ? nameOf(cell) : "the chosen cell"}; a table with a header names club, swing, carry and what else was measured, with units in brackets.`}
        placeholder={"club\tswing\tcarry (m)\tspin"}
        most={8}
        value={text}
        onChange={change}
      />
      <div className={classes.pasteRow}>
        <SegmentedControl
          aria-label="Unit of the carries"
          size="xs"
          value={unit}
          data={[
            { value: "m", label: "metres" },
            { value: "yd", label: "yards" },
          ]}
          onChange={(next) => {
            setUnit(next as DistanceUnit);
            setSure(false);
            paste.reset();
          }}
        />
        <Button
          size="xs"
          variant="default"
          disabled={text.trim() === ""}
          onClick={() => paste.mutate({ text, take: false })}
        >
          Look at it
        </Button>
        <Button
          size="xs"
          disabled={text.trim() === "" || paste.isPending}
          onClick={() => paste.mutate({ text, take: true })}
        >
          Take strikes
        </Button>
        <span role="status">
          {found && found.taken > 0 && `${found.taken} taken`}
          {found &&
            found.taken === 0 &&
            !found.question &&
            `reads as ${counted(found.strikes.length, "strike")}${carries.length > 0 ? ": " : ""}${carries
              .slice(0, 6)
              .map((carry) => plain(inDistance(metres(carry), units.distance), 1))
              .join(", ")}${carries.length > 6 ? ", …" : ""}${carries.length > 0 ? `\u00a0${units.distance}` : ""}`}
        </span>
      </div>
      {found?.question && !sure && (
        <p role="alert" className={classes.question}>
          {found.question}
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => {
              setUnit(unit === "m" ? "yd" : "m");
              paste.reset();
            }}
          >
            Yes, in {unit === "m" ? "yards" : "metres"}
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => {
              setSure(true);
              paste.reset();
            }}
          >
            No, they are right
          </Button>
        </p>
      )}
      {paste.isError && (
        <ul role="alert" className={classes.faults}>
          {faults.length === 0 && <li>{paste.error.message}</li>}
          {faults.slice(0, 12).map((fault) => (
            <li key={fault.field + fault.message}>
              {fault.field}: {fault.message}
              {fault.value && ` (${fault.value})`}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
