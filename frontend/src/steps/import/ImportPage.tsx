import { Button, Checkbox } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { type Fault, RequestError } from "../../api/client";
import { useStore } from "../../app/context";
import { counted } from "../../units/units";
import { Choice } from "../parts/Choice";
import { LayoutBar } from "../parts/LayoutBar";
import { StepHead } from "../parts/StepHead";
import { Columns } from "./Columns";
import { Earlier } from "./Earlier";
import classes from "./Import.module.css";
import { columnOfFault, type Draft, type Look, mappingOf } from "./mapping";
import { Outcome } from "./Outcome";
import { Preview } from "./Preview";
import { useImport } from "./useImport";
import { Words } from "./Words";

/** Strikes from a file of any shape: what its columns are, what they come to, and then all of them or none. */
export default function ImportPage() {
  const { server } = useStore();
  const file = useRef<HTMLInputElement>(null);
  const work = useImport();
  const [over, setOver] = useState(false);
  const { look, draft, run } = work;
  const pick = (files: FileList | null) => {
    const chosen = files?.[0];
    if (chosen) work.send.mutate(chosen);
    if (file.current) file.current.value = "";
  };
  const { mutate: send, isPending: sending } = work.send;
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const text = event.clipboardData?.getData("text/plain") ?? "";
      if (event.target instanceof HTMLInputElement || text.trim() === "" || sending) return;
      event.preventDefault();
      send(new File([text], "pasted cells.txt", { type: "text/plain" }));
    };
    window.addEventListener("paste", paste);
    return () => window.removeEventListener("paste", paste);
  }, [send, sending]);
  const aside = run && look ? `${run.name}: ${counted(look.rows, "row")}` : "";
  return (
    <>
      <StepHead title="Strikes from a file" aside={aside}>
        <Button size="xs" variant={run ? "default" : "filled"} onClick={() => file.current?.click()}>
          {run ? "Choose another file" : "Choose a file"}
        </Button>
        {run && run.state !== "running" && (
          <Button size="xs" variant="default" onClick={work.putAway}>
            Put the file away
          </Button>
        )}
        <Link to={`/fittings/${server.id}/strikes`} className={classes.back}>
          Back to Strikes
        </Link>
        <input
          ref={file}
          type="file"
          accept=".csv,.tsv,.txt,.xlsx,text/csv"
          aria-label="File of strikes"
          className="visually-hidden"
          tabIndex={-1}
          onChange={(event) => pick(event.currentTarget.files)}
        />
      </StepHead>
      {work.send.isError && <Refused error={work.send.error} />}
      {!run && (
        // biome-ignore lint/a11y/noStaticElementInteractions: the button above does the same from the keyboard
        <div
          className={classes.drop}
          data-over={over}
          onDragOver={(event) => {
            event.preventDefault();
            setOver(true);
          }}
          onDragLeave={() => setOver(false)}
          onDrop={(event) => {
            event.preventDefault();
            setOver(false);
            pick(event.dataTransfer.files);
          }}
        >
          {work.send.isPending
            ? "Sending and reading the file"
            : "Drop a CSV or XLSX file here, from any monitor or spreadsheet, or paste cells (Ctrl V). Columns are guessed; you see what they come to before anything is taken."}
        </div>
      )}
      {run && !look && (
        <>
          <Loose faults={work.faults} />
          {work.failure ? (
            <p role="alert" className={classes.failure}>
              {work.failure}
            </p>
          ) : (
            work.faults.length === 0 && <p role="status">Looking at the file …</p>
          )}
        </>
      )}
      {look && draft && run?.state !== "taken" && run?.state !== "withdrawn" && (
        <>
          <LayoutBar read={look.layout} layout={draft.layout} onLayout={work.relayout}>
            <Choice
              label="Decimal mark"
              value={draft.decimal}
              options={[
                ["point", "1.5"],
                ["comma", "1,5"],
              ]}
              onChange={(decimal) => work.change({ ...draft, decimal })}
            />
            <Checkbox
              className={classes.fill}
              label="an empty club or swing is the one above"
              checked={draft.fill_down}
              onChange={(event) => work.change({ ...draft, fill_down: event.currentTarget.checked })}
            />
            {look.saved_as && <span className={classes.note}>Mapped as “{look.saved_as}”, saved earlier.</span>}
          </LayoutBar>
          <Columns look={look} draft={draft} faults={work.faults} onChange={work.change} />
          <Words look={look} draft={draft} onChange={work.change} />
          <Loose faults={work.faults} />
          {work.failure && (
            <p role="alert" className={classes.failure}>
              {work.failure}
            </p>
          )}
          <Preview look={look} />
        </>
      )}
      {run && draft && look && (
        <Outcome work={work} run={run} missing={missing(work.faults, draft, look)} question={look.question} />
      )}
      {run?.state === "taken" && look && <Preview look={look} taken />}
      {(!run || run.state === "taken" || run.state === "withdrawn") && <Earlier />}
    </>
  );
}

function Refused({ error }: { error: Error }) {
  const faults = error instanceof RequestError ? (error.body?.faults ?? []) : [];
  return (
    <p role="alert" className={classes.failure}>
      {faults.length > 0 ? faults.map((f) => `The ${f.field} ${f.message}.`).join(" ") : error.message} Nothing was
      taken.
    </p>
  );
}

/** What has to be chosen before rows can be checked. */
function missing(faults: readonly Fault[], draft: Draft, look: Look): string | null {
  const fault = faults[0];
  if (!fault) return null;
  const column = columnOfFault(fault.field, mappingOf(draft));
  const name = look.columns.find((c) => c.column === column)?.name;
  return name ? `${name}: unit ${fault.message}` : "Something above is still to be mended.";
}

/** Faults that belong to no column. */
function Loose({ faults }: { faults: readonly Fault[] }) {
  const loose = faults.filter((f) => !/columns\.\d+/.test(f.field));
  if (loose.length === 0) return null;
  return (
    <ul role="alert" className={classes.failure}>
      {loose.map((f) => (
        <li key={f.field + f.message}>
          {f.field.split(".").at(-1)?.replace("_", " ")} {f.message}
          {f.value && ` (${f.value})`}
        </li>
      ))}
    </ul>
  );
}
