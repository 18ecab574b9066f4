import { Button, TextInput } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type KeptLine, unwrap } from "../../api/client";
import { lastFailure } from "../../api/lastFailure";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { useRemembered } from "../../app/useRemembered";
import { OutList } from "../parts/OutList";
import parts from "../parts/parts.module.css";
import { outKey, useOut } from "../parts/useOut";
import classes from "./Kept.module.css";
import { nameOf } from "./nameOf";

const told = (line: KeptLine) => `${nameOf(line)}: ${line.clubs.join(" · ")}`;

/** The list; one that is taken out can be put back at once. */
export function TakeOut({
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
  const [gone, setGone] = useState<readonly KeptLine[]>([]);
  // of one line: whoever chooses another has written nothing of that
  const [draft, setDraft] = useRemembered<{ id: string; label: string; was: string | null } | null>("label", null);
  const mine = draft?.id === chosen?.id ? draft : null;
  const path = (line: KeptLine) => ({ fitting_id: server.id, snapshot_id: line.id });
  const again = async () => {
    void client.invalidateQueries({ queryKey: outKey(server.id) });
    await client.invalidateQueries({ queryKey: ["kept", server.id] });
    refresh();
  };
  const name = useMutation({
    mutationFn: ({ line, label, was }: { line: KeptLine; label: string; was: string }) =>
      unwrap(
        api.PATCH("/api/fittings/{fitting_id}/kept/{snapshot_id}", {
          params: { path: path(line) },
          body: { label, was },
        }),
      ),
    onSuccess: async (saved, { line, label }) => {
      // what is written since is in the place of the name that it has now
      setDraft((now) => {
        if (now?.id !== line.id) return now;
        return now.label === label ? null : { ...now, was: saved.label };
      });
      await again();
    },
    // another name is said, and the list is read again: a second press is in the place of that one
    onError: () => setDraft((before) => before && { ...before, was: null }),
  });
  const out = useMutation({
    mutationFn: (line: KeptLine) =>
      unwrap(api.DELETE("/api/fittings/{fitting_id}/kept/{snapshot_id}", { params: { path: path(line) } })),
    onSuccess: async (_, line) => {
      setGone((now) => [...now, line]);
      await again();
    },
  });
  const back = useMutation({
    mutationFn: (line: KeptLine) =>
      unwrap(api.POST("/api/fittings/{fitting_id}/kept/{snapshot_id}/back", { params: { path: path(line) } })),
    onSuccess: async (_, line) => {
      setGone((now) => now.filter((one) => one.id !== line.id));
      await again();
    },
  });
  const failure = lastFailure(name, out, back);
  const takenOut = useOut((left) => left.kept.map((line) => ({ ...line, key: line.id, words: told(line) })));
  return (
    <>
      {failure && (
        <p role="alert" className={classes.line}>
          {failure.message}
        </p>
      )}
      {gone.map((line) => (
        <p key={line.id} role="status" className={classes.line}>
          {nameOf(line)} is taken out.{" "}
          <Button size="xs" variant="default" onClick={() => back.mutate(line)}>
            Put it back
          </Button>
        </p>
      ))}
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
      <OutList
        title="Proposals taken out"
        none="None. A kept proposal that is taken out can be put back here for thirty days."
        onBack={(line) => back.mutate(line)}
        {...takenOut}
      />
      {chosen && (
        <form
          className={classes.naming}
          onSubmit={(event) => {
            event.preventDefault();
            if (mine) name.mutate({ line: chosen, label: mine.label, was: mine.was ?? chosen.label });
          }}
        >
          <TextInput
            label="Name of the one chosen"
            placeholder="what it stands for"
            w={260}
            maxLength={TABLES.most.name}
            value={mine?.label ?? chosen.label}
            onChange={(event) =>
              setDraft({ id: chosen.id, label: event.currentTarget.value, was: mine ? mine.was : chosen.label })
            }
          />
          <Button
            type="submit"
            variant="default"
            loading={name.isPending}
            disabled={!mine || mine.label === chosen.label}
          >
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
