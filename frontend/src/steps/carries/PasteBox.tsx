import { Button, SegmentedControl } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { v4 as newId } from "uuid";
import { api, type Cell, RequestError, unwrap } from "../../api/client";
import { useStore, useUnits } from "../../app/context";
import { useRemembered } from "../../app/useRemembered";
import { counted, type DistanceUnit, inDistance, metres, plain } from "../../units/units";
import { Lines } from "../parts/Lines";
import classes from "./Carries.module.css";
import { nameOf } from "./Finder";

/** What is pasted, under an id of its own: sent again it is the same paste. */
interface Pasted {
  text: string;
  id: string;
  /** As it was chosen, or read by who pasted it. */
  unit: DistanceUnit | null;
  sure: boolean;
}

const NOTHING: Pasted = { text: "", id: "", unit: null, sure: false };

/** Strikes pasted from a spreadsheet: looked at first, then taken all or none. */
export function PasteBox({ cell }: { cell: Cell | null }) {
  const store = useStore();
  const units = useUnits();
  const client = useQueryClient();
  const [pasted, put] = useRemembered("paste", NOTHING);
  const { text, sure } = pasted;
  const unit = pasted.unit ?? units.distance;
  const paste = useMutation({
    mutationFn: ({ text, take }: { text: string; take: boolean }) =>
      unwrap(
        api.POST("/api/fittings/{fitting_id}/strikes/paste", {
          params: { path: { fitting_id: store.server.id } },
          body: {
            text,
            unit,
            paste_id: pasted.id,
            cell: cell ? { club: cell.club, loft_deg: cell.loft_deg, swing: cell.swing } : null,
            take,
            sure_of_unit: sure,
          },
        }),
      ),
    onSuccess: (found, sent) => {
      if (found.taken === 0) return;
      // what was pasted since is another paste
      put((now) => (now.text === sent.text ? { ...NOTHING, unit: now.unit } : now));
      client.invalidateQueries({ queryKey: ["carries", store.server.id] });
      store.refresh();
    },
  });
  const change = (changes: Partial<Pasted>) => {
    put((before) => ({ ...before, ...changes }));
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
        onChange={(text) => change({ text, unit, id: newId(), sure: false })}
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
          onChange={(next) => change({ unit: next as DistanceUnit, sure: false })}
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
          <Button size="compact-sm" variant="default" onClick={() => change({ unit: unit === "m" ? "yd" : "m" })}>
            Yes, in {unit === "m" ? "yards" : "metres"}
          </Button>
          <Button size="compact-sm" variant="default" onClick={() => change({ sure: true })}>
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
