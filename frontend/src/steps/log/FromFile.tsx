import { Button, NativeSelect } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, type Schemas, unwrap } from "../../api/client";
import { base64Of } from "../../api/files";
import { namedIn, optionsOf, TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { same } from "../../history/changes";
import { counted } from "../../units/units";
import { FirstRows } from "../parts/FirstRows";
import { KeepMapping } from "../parts/KeepMapping";
import { type Layout, LayoutBar } from "../parts/LayoutBar";
import parts from "../parts/parts.module.css";
import { SavedMappings } from "../parts/SavedMappings";
import classes from "./Log.module.css";
import { useAgain, useLog } from "./useLog";

type Mapping = Schemas["LogMappingDocument"];
type Found = Schemas["LogFileOut"];
interface Asked {
  content: string;
  /** Of a file whose columns are to be guessed: a mapping has its own. */
  layout?: Layout;
  mapping: Mapping | null;
  take: boolean;
  keep_as?: string | null;
}
type Field = keyof NonNullable<Mapping["columns"]>;
const FIELDS = TABLES.log_fields as { key: Field; name: string }[];
const nameOf = (field: string) => namedIn(TABLES.log_fields, field);
const WORDS = { club: "clubs", situation: "situations", result: "results" } as const;

/** Things one after the other, the last with an "and". */
const listed = (names: readonly string[]) => new Intl.ListFormat("en-GB").format(names);

/** A log from a table: what is guessed stands there and can be changed; every row is taken, or none. */
export function FromFile() {
  const { server } = useStore();
  const again = useAgain();
  const log = useLog();
  const input = useRef<HTMLInputElement>(null);
  const client = useQueryClient();
  const [content, setContent] = useState<string | null>(null);
  /** The file as the server understood it last, and the mapping as it is chosen here: they differ until the next answer. */
  const [found, setFound] = useState<Found | null>(null);
  const [mapping, setMapping] = useState<Mapping | null>(null);
  const newest = useRef<Asked | null>(null);
  const [keep, setKeep] = useState(true);
  const [name, setName] = useState("");
  const [saved, setSaved] = useState<string | null>(null);
  const ask = useMutation({
    mutationFn: (body: Asked) =>
      unwrap(api.POST("/api/fittings/{fitting_id}/log/file", { params: { path: { fitting_id: server.id } }, body })),
    onSuccess: (answer, body) => {
      if (answer.taken !== null) {
        void client.invalidateQueries({ queryKey: ["mappings", "log"] });
        again();
      }
      if (newest.current !== body) return;
      if (body.mapping === null) setSaved(answer.saved_as);
      setFound(answer);
      setMapping(answer.mapping);
    },
  });
  const send = (body: Asked) => {
    newest.current = body;
    ask.mutate(body);
  };
  const read = useMutation({
    mutationFn: base64Of,
    onSuccess: (next, file) => {
      setContent(next);
      setFound(null);
      setMapping(null);
      setName(file.name.replace(/\.[a-z]+$/i, "").slice(0, TABLES.most.mapping_name));
      setSaved(null);
      send({ content: next, mapping: null, take: false });
    },
  });
  const change = (next: Mapping) => {
    if (content === null) return;
    setMapping(next);
    send({ content, mapping: next, take: false });
  };
  /** Read otherwise: columns are guessed anew. */
  const relayout = (layout: Layout) => content !== null && send({ content, layout, mapping: null, take: false });
  const means: Record<keyof typeof WORDS, readonly { key: string; name: string }[]> = {
    club: (log.data?.clubs_here ?? []).map(({ code, name }) => ({ key: code, name })),
    situation: TABLES.log_situations,
    result: TABLES.results,
  };
  return (
    <section className={classes.section} aria-label="From a file">
      <h2>From a file</h2>
      <p className={classes.quiet}>
        A table (CSV or XLSX) with a row a shot: day, lie, club and result at least.{" "}
        <button type="button" className={parts.quietButton} onClick={() => input.current?.click()}>
          Choose a file
        </button>
      </p>
      <input
        ref={input}
        type="file"
        accept=".csv,.txt,.tsv,.xlsx"
        aria-label="Table of shots"
        className="visually-hidden"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.currentTarget.files?.[0];
          if (file) read.mutate(file);
          event.currentTarget.value = ""; // so that the same file, changed since, can be chosen again
        }}
      />
      {read.error && <p role="alert">{read.error.message}</p>}
      {ask.error && (
        <p role="alert">
          {ask.error.message}{" "}
          <button type="button" className={parts.quietButton} onClick={() => newest.current && send(newest.current)}>
            Try again
          </button>
        </p>
      )}
      {found && mapping && (
        <>
          <div className={classes.flush}>
            <LayoutBar read={found.layout} layout={mapping.layout ?? {}} onLayout={relayout} />
          </div>
          <div className={parts.fields}>
            {FIELDS.map(({ key: field, name }) => (
              <NativeSelect
                key={field}
                label={name}
                value={String(mapping.columns?.[field] ?? "")}
                data={[
                  { value: "", label: "no column" },
                  ...found.header.map((title, n) => ({ value: String(n + 1), label: title })),
                ]}
                onChange={(event) => {
                  const columns = { ...mapping.columns };
                  if (event.currentTarget.value === "") delete columns[field];
                  else columns[field] = Number(event.currentTarget.value);
                  change({ ...mapping, columns });
                }}
              />
            ))}
            <NativeSelect
              label="distances in"
              value={mapping.unit}
              data={["m", "yd"]}
              onChange={(event) => change({ ...mapping, unit: event.currentTarget.value as "m" | "yd" })}
            />
          </div>
          <div className={parts.fields}>
            {(Object.keys(WORDS) as (keyof typeof WORDS)[]).flatMap((kind) => {
              const known = mapping[WORDS[kind]] ?? {};
              const words = [...new Set([...(found.unknown[kind] ?? []), ...Object.keys(known)])];
              return words.map((word) => (
                <NativeSelect
                  key={`${kind}|${word}`}
                  label={`${nameOf(kind)}: “${word}” means`}
                  value={known[word] ?? ""}
                  data={[{ value: "", label: "choose" }, ...optionsOf(means[kind])]}
                  onChange={(event) => {
                    const { [word]: _, ...others } = known;
                    const meaning = event.currentTarget.value;
                    change({ ...mapping, [WORDS[kind]]: meaning === "" ? others : { ...others, [word]: meaning } });
                  }}
                />
              ));
            })}
          </div>
          <div className={classes.flush}>
            <FirstRows table={found} />
          </div>
          {found.refused.length > 0 && (
            <ul className={classes.plain} role="alert">
              {found.refused.slice(0, 12).map((one, n) => (
                <li key={n}>
                  row {one.row}, {nameOf(one.field)}: {one.message}
                </li>
              ))}
            </ul>
          )}
          <p role="status">
            {found.missing.length > 0
              ? `Nothing can be told before there is a column for ${listed(found.missing.map(nameOf))}.`
              : found.taken === null
                ? `${counted(found.rows, "shot")} understood, ${found.refused.length} wrong.`
                : `${counted(found.taken, "new shot")} taken; those that were there already count once.`}
          </p>
          {saved !== null && <p className={classes.quiet}>Mapped as “{saved}”, saved earlier.</p>}
          <div className={parts.fields}>
            <KeepMapping keep={keep} name={name} onKeep={setKeep} onName={setName} />
          </div>
          <Button
            mt={10}
            disabled={
              found.rows === 0 || found.refused.length > 0 || found.taken !== null || !same(found.mapping, mapping)
            }
            loading={ask.isPending}
            onClick={() =>
              content && send({ content, mapping, take: true, keep_as: keep && name.trim() ? name.trim() : null })
            }
          >
            Take {counted(found.rows, "shot")}
          </Button>
        </>
      )}
      <div className={classes.flush}>
        <SavedMappings kind="log" />
      </div>
    </section>
  );
}
