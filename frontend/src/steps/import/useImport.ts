import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useEffectEvent, useRef, useState } from "react";
import { againAfter } from "../../api/again";
import { api, type Fault, RequestError, sendFile, unwrap } from "../../api/client";
import { useStore } from "../../app/context";
import { useRemembered } from "../../app/useRemembered";
import { type Draft, draftOf, type ImportRun, type Look, mappingOf } from "./mapping";

const POLL_MS = 250;
const PAUSE_MS = 250;
const AGAIN_MS = 3000;

interface RunOptions {
  take: boolean;
  leave_out_wrong: boolean;
  other_strikes: boolean;
  keep_as: string | null;
}

/** A file on its way in: sent, looked at through the mapping as it changes, checked or taken, stopped, taken back. */
export function useImport() {
  const { server, refresh } = useStore();
  const client = useQueryClient();
  const fitting_id = server.id;
  const [begun, remember] = useRemembered<{ id: string; draft: Draft | null } | null>("import", null);
  const [id, setId] = useState(begun?.id ?? null);
  const [look, setLook] = useState<Look | null>(null);
  const [draft, setDraft] = useState(begun?.draft ?? null);
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const [failure, setFailure] = useState<string | null>(null);
  const asked = useRef(0);
  const looked = useRef(false);
  const later = useRef<ReturnType<typeof setTimeout>>(undefined);
  const path = { fitting_id, import_id: id ?? "" };
  const key = ["import", fitting_id, id];

  const run = useQuery({
    queryKey: key,
    enabled: id !== null,
    queryFn: () => unwrap(api.GET("/api/fittings/{fitting_id}/imports/{import_id}", { params: { path } })),
    refetchInterval: (query) => (query.state.data?.state === "running" ? POLL_MS : againAfter(query)),
  });
  const state = run.data?.state;
  // strikes that came or went are in every other view
  useEffect(() => {
    if (state !== "taken" && state !== "withdrawn") return;
    for (const name of ["session-summary", "carries", "imports"])
      void client.invalidateQueries({ queryKey: [name, fitting_id] });
    refresh();
  }, [state, client, fitting_id, refresh]);

  // one that came to its end while nobody looked is among those that were taken, or gone: another is chosen
  const over = state === "taken" || state === "withdrawn";
  const gone = run.error instanceof RequestError && run.error.refused;
  const goOn = useEffectEvent((_: ImportRun["state"]) => {
    if (id === null || looked.current) return;
    if (over) setId(null);
    else void ask(id, draft, draft?.layout ?? {});
  });
  useEffect(() => {
    if (state !== undefined) goOn(state);
  }, [state]);
  useEffect(() => {
    if (gone) setId(null);
  }, [gone]);
  const keep = useEffectEvent((id: string | null, draft: Draft | null) => remember(id === null ? null : { id, draft }));
  useEffect(() => keep(over ? null : id, draft), [id, draft, over]);

  const ask = async (import_id: string, next: Draft | null, layout: Draft["layout"]) => {
    const mine = ++asked.current;
    looked.current = true;
    clearTimeout(later.current);
    try {
      const found = await unwrap(
        api.POST("/api/fittings/{fitting_id}/imports/{import_id}/look", {
          params: { path: { fitting_id, import_id } },
          body: { layout, mapping: next && mappingOf(next) },
        }),
      );
      if (mine !== asked.current) return;
      setLook(found);
      setFaults(found.faults);
      setFailure(null);
      if (!next) setDraft(draftOf(found, layout));
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      if (mine !== asked.current) return;
      const said = error.body?.faults ?? [];
      setFaults(said);
      setFailure(said.length === 0 ? error.message : null);
      if (!error.refused) later.current = setTimeout(() => ask(import_id, next, layout), AGAIN_MS);
    }
  };
  useEffect(
    () => () => {
      asked.current += 1; // the page was left: nothing is asked any more
      clearTimeout(later.current);
    },
    [],
  );
  const putAway = () => {
    clearTimeout(later.current);
    asked.current += 1; // what is on its way is of this file
    setId(null);
    setLook(null);
    setDraft(null);
    setFaults([]);
    setFailure(null);
  };
  const send = useMutation({
    mutationFn: (file: File) =>
      sendFile<ImportRun>(`/api/fittings/${fitting_id}/imports?name=${encodeURIComponent(file.name)}`, file),
    onMutate: () => putAway(),
    onSuccess: (made) => {
      client.setQueryData(["import", fitting_id, made.id], made);
      setId(made.id);
      void ask(made.id, null, {});
    },
  });
  const start = useMutation({
    mutationFn: (options: RunOptions) =>
      unwrap(
        api.POST("/api/fittings/{fitting_id}/imports/{import_id}/run", {
          params: { path },
          body: { ...options, mapping: mappingOf(draft as Draft) },
        }),
      ),
    onSuccess: (found) => client.setQueryData(key, found),
  });
  const stop = useMutation({
    mutationFn: () => unwrap(api.POST("/api/fittings/{fitting_id}/imports/{import_id}/stop", { params: { path } })),
  });
  const withdraw = useMutation({
    mutationFn: () => unwrap(api.POST("/api/fittings/{fitting_id}/imports/{import_id}/withdraw", { params: { path } })),
    onSuccess: (found) => client.setQueryData(key, found),
  });
  // one whose answer was lost may have been done: the run tells
  const acts = [
    { act: start, done: state === "running" || state === "taken" },
    { act: stop, done: state !== "running" },
    { act: withdraw, done: state === "withdrawn" },
  ];
  const [last] = acts.sort((a, b) => b.act.submittedAt - a.act.submittedAt);
  return {
    run: run.data,
    look,
    draft,
    faults,
    failure,
    send,
    start,
    stop,
    withdraw,
    putAway,
    /** What went wrong with the last act, in words. */
    problem: (!last?.done && last?.act.error?.message) || null,
    wrongAt: `/api/fittings/${fitting_id}/imports/${id}/wrong.csv`,
    /** Another mapping: shown at once, looked at a moment later. What was checked before stands no more. */
    change: (next: Draft) => {
      setDraft(next);
      if (!id) return;
      if (run.data && run.data.state !== "ready")
        client.setQueryData(key, { ...run.data, state: "ready", counts: null });
      clearTimeout(later.current);
      asked.current += 1; // what is on its way is of the mapping before
      later.current = setTimeout(() => ask(id, next, next.layout), PAUSE_MS);
    },
    /** Another layout: columns are guessed anew. */
    relayout: (layout: Draft["layout"]) => {
      clearTimeout(later.current);
      if (id) void ask(id, null, layout);
    },
  };
}
