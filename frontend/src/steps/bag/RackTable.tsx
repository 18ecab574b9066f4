import { Button, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { unparse } from "papaparse";
import { useRef, useState } from "react";
import { api, RequestError, type Schemas, unwrap } from "../../api/client";
import { base64Of, textInBase64 } from "../../api/files";
import { lastFailure } from "../../api/lastFailure";
import { TABLES } from "../../api/tables";
import { useStore, useUnits } from "../../app/context";
import { useOnSaved } from "../../app/useKeep";
import { counted, inReader, trimmed } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Bag.module.css";
import { RackReading } from "./RackReading";

type RackHead = Schemas["RackHeadDocument"];
type RackFile = Schemas["RackFileIn"];

const COLUMNS = TABLES.head.filter((figure) => figure.short !== null);

/** The heads to choose from: the studio's rack, or the one that came with an imported fitting. */
export function RackTable() {
  const { server, refresh } = useStore();
  const units = useUnits();
  const client = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [text, setText] = useState("");
  /** The rack in whose place this screen put the one at a revision. */
  const [before, setBefore] = useState<{ heads: readonly RackHead[]; revision: number } | null>(null);
  /** The file that was chosen last with its layout, and how the server read it. */
  const [chosen, setChosen] = useState<RackFile | null>(null);
  const [read, setRead] = useState<Schemas["TableOut"] | null>(null);
  const newest = useRef<RackFile | null>(null);
  const [dropped, setDropped] = useState<RackHead[] | null>(null);
  const studio = useQuery({ queryKey: ["rack"], queryFn: () => unwrap(api.GET("/api/rack")) });
  const undone = before?.revision === studio.data?.revision ? before : null;
  const replace = useMutation({
    // one after the other: another sheet, chosen while the first is on its way, is in the place of that one
    scope: { id: "rack" },
    mutationFn: (file: RackFile) => {
      const shown = client.getQueryData<Schemas["RackOut"]>(["rack"]);
      return unwrap(api.PUT("/api/rack", { body: { ...file, revision: shown?.revision ?? 1 } }));
    },
    // the same file read otherwise is no other rack's successor
    onMutate: ({ content }) => (chosen?.content === content && undone ? undone.heads : studio.data?.heads),
    onSuccess: (rack, _, heads) => {
      setBefore(heads ? { heads, revision: rack.revision } : null);
      client.setQueryData(["rack"], rack);
      refresh();
    },
    // somebody else's rack is shown before anything is put in its place
    onError: (error) => {
      if (error instanceof RequestError && error.status === 409) void studio.refetch();
    },
  });
  const look = useMutation({
    mutationFn: (file: RackFile) => unwrap(api.POST("/api/rack/look", { body: file })),
    onSuccess: (found, file) => file === newest.current && setRead(found),
  });
  const send = (next: RackFile) => {
    newest.current = next;
    setChosen(next);
    replace.mutate(next);
    look.mutate(next);
  };
  const forget = () => {
    newest.current = null;
    setChosen(null);
    setRead(null);
  };
  const choose = useMutation({
    mutationFn: base64Of,
    onSuccess: (content) => {
      setRead(null);
      send({ content, layout: {} });
    },
  });
  const overtaken = replace.error instanceof RequestError && replace.error.status === 409;
  const own = server.document.rack ?? null;
  const onSaved = useOnSaved();
  const drop = useMutation({
    mutationFn: () =>
      onSaved(({ revision }) =>
        unwrap(
          api.PATCH("/api/fittings/{fitting_id}", {
            params: { path: { fitting_id: server.id } },
            body: { revision, drop_rack: true },
          }),
        ),
      ),
    onMutate: () => own,
    onSuccess: (_, __, heads) => {
      setDropped(heads);
      refresh();
    },
  });
  const bringBack = useMutation({
    mutationFn: (rack: RackHead[]) =>
      onSaved(({ revision }) =>
        unwrap(
          api.PATCH("/api/fittings/{fitting_id}", {
            params: { path: { fitting_id: server.id } },
            body: { revision, rack },
          }),
        ),
      ),
    onSuccess: () => {
      setDropped(null);
      refresh();
    },
  });
  const heads = own ?? studio.data?.heads ?? [];
  const wanted = text.trim().toLowerCase();
  const shown = heads.filter(
    (h) => !wanted || `${h.code} ${h.name} ${h.loft_deg} ${h.make}`.toLowerCase().includes(wanted),
  );
  const failure = lastFailure(drop, bringBack);
  const refused = lastFailure(choose, replace);
  const faults = refused instanceof RequestError ? (refused.body?.faults ?? []) : [];
  return (
    <>
      <div className={classes.rackHead}>
        <TextInput
          aria-label="Find a head"
          placeholder="Find a head by name or loft"
          size="xs"
          value={text}
          onChange={(e) => setText(e.currentTarget.value)}
        />
        {own ? (
          <>
            <span>This fitting brought its own rack of {counted(own.length, "head")}.</span>
            <Button variant="default" size="xs" onClick={() => drop.mutate()} loading={drop.isPending}>
              Use the studio's rack
            </Button>
          </>
        ) : (
          <>
            <Button
              variant="default"
              size="xs"
              disabled={!studio.data}
              onClick={() => file.current?.click()}
              loading={replace.isPending}
            >
              Replace the rack from a table
            </Button>
            <span>
              <a href="/api/rack/rack.csv">Save the rack as CSV</a>, change it in any spreadsheet, and read that back:
              CSV or XLSX.
            </span>
          </>
        )}
        {overtaken && (
          <span role="alert" className={classes.overtaken}>
            Somebody else put another rack in place meanwhile: it is the one below.{" "}
            <Button size="xs" onClick={() => replace.variables && replace.mutate(replace.variables)}>
              Put yours in its place
            </Button>{" "}
            <Button
              size="xs"
              variant="default"
              onClick={() => {
                replace.reset();
                forget();
              }}
            >
              Keep theirs
            </Button>
          </span>
        )}
        {failure && (
          <span role="alert" className={classes.overtaken}>
            {failure.message}
          </span>
        )}
        <input
          ref={file}
          type="file"
          accept=".csv,.txt,.tsv,.xlsx"
          aria-label="Rack as a table"
          className="visually-hidden"
          tabIndex={-1}
          onChange={(e) => {
            const picked = e.currentTarget.files?.[0];
            if (picked) choose.mutate(picked);
            if (file.current) file.current.value = "";
          }}
        />
      </div>
      {undone && !own && (
        <p role="status" className={classes.rackSaid}>
          This rack is in the place of one of {counted(undone.heads.length, "head")}.{" "}
          <button
            type="button"
            className={parts.quietButton}
            disabled={replace.isPending}
            onClick={() => {
              replace.mutate({ content: textInBase64(unparse([...undone.heads])), layout: {} });
              forget();
            }}
          >
            Put that one back
          </button>
        </p>
      )}
      {dropped && !own && (
        <p role="status" className={classes.rackSaid}>
          The rack that this fitting brought is dropped.{" "}
          <button
            type="button"
            className={parts.quietButton}
            disabled={bringBack.isPending}
            onClick={() => bringBack.mutate(dropped)}
          >
            Put it back
          </button>
        </p>
      )}
      {refused && (
        <div role="alert" className={classes.rackFault}>
          <strong>The rack stays as it was.</strong> {faults.length === 0 && refused.message}
          <ul>
            {faults.slice(0, 6).map((f) => (
              <li key={f.field + f.message}>
                {[f.field, f.value].filter(Boolean).join(" ")}: {f.message}
              </li>
            ))}
            {faults.length > 6 && <li>and {faults.length - 6} more</li>}
          </ul>
        </div>
      )}
      {chosen && read && !own && (faults.length > 0 || undone) && (
        <RackReading
          read={read}
          layout={chosen.layout ?? {}}
          wrong={faults.length > 0}
          onLayout={(layout) => send({ ...chosen, layout })}
        />
      )}
      {!own && !studio.data && (
        <p role={studio.isError ? "alert" : "status"} className={classes.rackSaid}>
          {studio.isError ? studio.error.message : "Reading the rack …"}
        </p>
      )}
      <CopyTable caption={own || studio.data ? `Rack: ${shown.length} of ${heads.length} heads` : "Rack"}>
        <thead>
          <tr>
            <th>Code</th>
            <th>Head</th>
            {COLUMNS.map((figure) => (
              <th key={figure.key} className={parts.num}>
                {figure.short} {figure.unit}
              </th>
            ))}
            <th>Make</th>
            <th className={parts.num}>Bend ±°</th>
            <th className={parts.num}>Stock</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((h) => (
            <tr key={h.code}>
              <td>{h.code}</td>
              <td>{h.name}</td>
              {COLUMNS.map((figure) => (
                <td key={figure.key} className={parts.num}>
                  {trimmed(
                    inReader(figure, (h as unknown as Record<string, number>)[figure.key] ?? 0, units),
                    figure.places,
                  )}
                </td>
              ))}
              <td>{h.make}</td>
              <td className={parts.num}>{trimmed(h.bend_limit_deg)}</td>
              <td className={parts.num}>{h.stock}</td>
            </tr>
          ))}
        </tbody>
      </CopyTable>
    </>
  );
}
