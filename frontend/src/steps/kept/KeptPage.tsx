import { Button, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Kept, type KeptLine, unwrap } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import type { Section } from "../../app/drafts";
import parts from "../parts/parts.module.css";
import { StepHead } from "../parts/StepHead";
import { Comparison } from "./Comparison";
import classes from "./Kept.module.css";
import { nameOf } from "./nameOf";

const NOW = "now";

/** Kept proposals: named, taken out, and any two of them side by side; the present state can stand on either side. */
export default function KeptPage() {
  const { server } = useStore();
  const list = useQuery({
    queryKey: ["kept", server.id],
    queryFn: () => unwrap(api.GET("/api/fittings/{fitting_id}/kept", { params: { path: { fitting_id: server.id } } })),
  });
  const kept = list.data?.kept ?? [];
  const [chosen, setChosen] = useState<string | null>(null);
  const [beside, setBeside] = useState(NOW);
  const first = kept.find((line) => line.id === chosen) ?? kept[0];
  const other = kept.find((line) => line.id === beside && line.id !== first?.id);
  return (
    <>
      <StepHead title="Kept proposals" aside={`${kept.length} kept`} />
      {list.isError && <p className={classes.line}>{list.error.message}</p>}
      {list.data && kept.length === 0 && (
        <p className={classes.line}>
          Nothing kept yet. Press “Keep this proposal” (K): inputs, engine and result are then fixed for good.
        </p>
      )}
      <TakeOut kept={kept} chosen={first} onChoose={setChosen} />
      {first && (
        <>
          <label className={classes.beside}>
            Beside
            <select value={other?.id ?? NOW} onChange={(event) => setBeside(event.currentTarget.value)}>
              <option value={NOW}>the fitting as it stands</option>
              {kept
                .filter((line) => line.id !== first.id)
                .map((line) => (
                  <option key={line.id} value={line.id}>
                    {nameOf(line)}
                  </option>
                ))}
            </select>
          </label>
          <Side first={first} other={other} />
        </>
      )}
    </>
  );
}

/** The list; one that is taken out can be put back at once. */
function TakeOut({
  kept,
  chosen,
  onChoose,
}: {
  kept: readonly KeptLine[];
  chosen: KeptLine | undefined;
  onChoose: (id: string) => void;
}) {
  const { server, refresh } = useStore();
  const client = useQueryClient();
  const [gone, setGone] = useState<KeptLine | null>(null);
  const [text, setText] = useState<string | null>(null);
  const path = (line: KeptLine) => ({ fitting_id: server.id, snapshot_id: line.id });
  const again = async () => {
    await client.invalidateQueries({ queryKey: ["kept", server.id] });
    refresh();
  };
  const name = useMutation({
    mutationFn: ({ line, label }: { line: KeptLine; label: string }) =>
      unwrap(
        api.PATCH("/api/fittings/{fitting_id}/kept/{snapshot_id}", { params: { path: path(line) }, body: { label } }),
      ),
    onSuccess: async () => {
      setText(null);
      await again();
    },
  });
  const out = useMutation({
    mutationFn: (line: KeptLine) =>
      unwrap(api.DELETE("/api/fittings/{fitting_id}/kept/{snapshot_id}", { params: { path: path(line) } })),
    onSuccess: async (_, line) => {
      setGone(line);
      await again();
    },
  });
  const back = useMutation({
    mutationFn: (line: KeptLine) =>
      unwrap(api.POST("/api/fittings/{fitting_id}/kept/{snapshot_id}/back", { params: { path: path(line) } })),
    onSuccess: async () => {
      setGone(null);
      await again();
    },
  });
  const failure = name.error ?? out.error ?? back.error;
  return (
    <>
      {failure && (
        <p role="alert" className={classes.line}>
          {failure.message}
        </p>
      )}
      {gone && (
        <p role="status" className={classes.line}>
          {nameOf(gone)} is taken out.{" "}
          <Button size="xs" variant="default" onClick={() => back.mutate(gone)}>
            Put it back
          </Button>
        </p>
      )}
      <ul className={classes.list}>
        {kept.map((line) => (
          <li key={line.id}>
            <button
              type="button"
              data-on={line.id === chosen?.id}
              aria-pressed={line.id === chosen?.id}
              onClick={() => onChoose(line.id)}
            >
              <strong>{nameOf(line)}</strong>
              <span>{line.clubs.join(" · ")}</span>
              <span className={parts.unit}>
                by {line.kept_by}, engine {line.engine_version}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {chosen && (
        <form
          className={classes.naming}
          onSubmit={(event) => {
            event.preventDefault();
            name.mutate({ line: chosen, label: text ?? chosen.label });
          }}
        >
          <TextInput
            label="Name of the one chosen"
            placeholder="what it stands for"
            w={260}
            maxLength={TABLES.most.name}
            value={text ?? chosen.label}
            onChange={(event) => setText(event.currentTarget.value)}
          />
          <Button type="submit" variant="default" disabled={text === null || text === chosen.label}>
            Name it
          </Button>
          <Button variant="subtle" color="rust" onClick={() => out.mutate(chosen)}>
            Take it out
          </Button>
        </form>
      )}
    </>
  );
}

/** What differs, and the way back to the inputs of the one chosen. */
function Side({ first, other }: { first: KeptLine; other: KeptLine | undefined }) {
  const { server, editAll } = useStore();
  const whole = (snapshot_id: string | undefined) => ({
    queryKey: ["kept", server.id, snapshot_id],
    enabled: snapshot_id !== undefined,
    queryFn: () =>
      unwrap(
        api.GET("/api/fittings/{fitting_id}/kept/{snapshot_id}", {
          params: { path: { fitting_id: server.id, snapshot_id: snapshot_id ?? "" } },
        }),
      ),
  });
  const one = useQuery(whole(first.id));
  const two = useQuery(whole(other?.id));
  const compared = useQuery({
    queryKey: ["kept", server.id, first.id, "beside", other?.id ?? `${server.revision} ${server.strikes_key}`],
    queryFn: () =>
      unwrap(
        api.GET("/api/fittings/{fitting_id}/kept/{snapshot_id}/compare", {
          params: {
            path: { fitting_id: server.id, snapshot_id: first.id },
            query: other ? { other: other.id } : {},
          },
        }),
      ),
  });
  // in one act, so that one Undo takes it back
  const reopen = ({ document }: Kept) =>
    editAll(
      Object.fromEntries(
        TABLES.proposal_sections.flatMap((name) => {
          const was = document[name as Section];
          return was === undefined ? [] : [[name, was]]; // an earlier program may have kept none
        }),
      ),
    );
  const failure = one.error ?? two.error ?? compared.error;
  return (
    <>
      {failure && (
        <p role="alert" className={classes.line}>
          {failure.message}
        </p>
      )}
      {one.data && (other ? two.data : true) && (
        <Comparison
          first={one.data}
          second={other ? (two.data?.result ?? null) : server.recommendation}
          name={other ? nameOf(other) : "Now"}
          differences={compared.data?.differences}
        />
      )}
      {one.data && (
        <p className={classes.line}>
          <Button variant="default" onClick={() => one.data && reopen(one.data)}>
            Work on from this one
          </Button>{" "}
          <span className={parts.unit}>
            brings player, grounds, bag, choices, measuring and what proofs showed back as they were; strikes, the
            studio's rack, build, card and log stay as they are now. The kept proposal itself does not change, and Undo
            takes it back.
          </span>
        </p>
      )}
    </>
  );
}
