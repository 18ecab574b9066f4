import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, type Fault, type Fitting, type FittingDocument, RequestError, unwrap } from "../api/client";

export type Section = "player" | "grounds" | "bag" | "choices" | "measuring";
export type SaveState = "saved" | "saving" | "waiting" | "offline" | "refused" | "conflict";

type Draft = Pick<FittingDocument, Section>;
const SECTIONS: readonly Section[] = ["player", "grounds", "bag", "choices", "measuring"];
const QUIET_MS = 90;
const RETRY_MS = 3000;
const UNDO_DEPTH = 50;

export interface FittingStore {
  /** What the server holds, with the proposal made from it. */
  server: Fitting;
  /** What is on the screen: the server's document with the edits not yet saved. */
  draft: Draft;
  saveState: SaveState;
  faults: Fault[];
  edit: <S extends Section>(section: S, value: Draft[S]) => void;
  undo: () => void;
  canUndo: boolean;
  /** After a conflict: take the other screen's state, or save this one over it. */
  resolve: (keep: "mine" | "theirs") => void;
  reload: () => Promise<void>;
  adopt: (fitting: Fitting) => void;
}

const storageKey = (id: string) => `oblatus-draft-${id}`;

/** Edits kept in this browser from a session that ended before they were saved. */
function keptDraft(id: string): Partial<Draft> {
  try {
    return JSON.parse(localStorage.getItem(storageKey(id)) ?? "{}") as Partial<Draft>;
  } catch {
    return {};
  }
}

function keepDraft(id: string, dirty: Partial<Draft>) {
  if (Object.keys(dirty).length === 0) localStorage.removeItem(storageKey(id));
  else localStorage.setItem(storageKey(id), JSON.stringify(dirty));
}

const pick = (document: FittingDocument): Draft => ({
  player: document.player,
  grounds: document.grounds,
  bag: document.bag,
  choices: document.choices,
  measuring: document.measuring,
});

const sectionOf = (fault: Fault): Section | undefined =>
  SECTIONS.find((section) => fault.field === section || fault.field.startsWith(`${section}.`));

/**
 * Autosave of one fitting: edits show at once, are kept in the browser until the server has them, go out one request
 * at a time, and a section that the server refuses stays on the screen without holding the others back.
 */
export function useFitting(initial: Fitting): FittingStore {
  const id = initial.id;
  const [server, setServer] = useState(initial);
  const [dirty, setDirty] = useState<Partial<Draft>>(() => keptDraft(id));
  const [refused, setRefused] = useState<Partial<Draft>>({});
  const [faults, setFaults] = useState<Fault[]>([]);
  const [saveState, setSaveState] = useState<SaveState>("saved");
  const [history, setHistory] = useState<Partial<Draft>[]>([]);
  const busy = useRef(false);
  const latest = useRef({ server, dirty, refused });
  latest.current = { server, dirty, refused };

  const draft = useMemo<Draft>(() => ({ ...pick(server.document), ...dirty }), [server, dirty]);

  useEffect(() => keepDraft(id, dirty), [id, dirty]);

  const save = useCallback(async () => {
    const now = latest.current;
    const going = SECTIONS.filter((s) => now.dirty[s] !== undefined && now.dirty[s] !== now.refused[s]);
    if (busy.current || going.length === 0) return;
    busy.current = true;
    setSaveState("saving");
    const sent = Object.fromEntries(going.map((s) => [s, now.dirty[s]])) as Partial<Draft>;
    try {
      const reply = await unwrap(
        api.PATCH("/api/fittings/{fitting_id}", {
          params: { path: { fitting_id: id } },
          body: { revision: now.server.revision, drop_rack: false, ...sent },
        }),
      );
      // the next save may start before React renders again, and must carry the new revision
      latest.current = { ...latest.current, server: reply };
      setServer(reply);
      setDirty((current) => {
        const left = { ...current };
        for (const s of going) if (left[s] === sent[s]) delete left[s];
        return left;
      });
      setFaults((current) => current.filter((fault) => !going.includes(sectionOf(fault) as Section)));
      setRefused((current) => {
        const left = { ...current };
        for (const s of going) delete left[s];
        return left;
      });
      setSaveState("saved");
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      if (error.status === 422 && error.body) {
        const found = error.body.faults ?? [];
        const bad = going.filter((s) => found.some((fault) => sectionOf(fault) === s));
        const blamed = bad.length > 0 ? bad : going;
        setFaults((current) => [...current.filter((f) => !blamed.includes(sectionOf(f) as Section)), ...found]);
        setRefused((current) => ({ ...current, ...Object.fromEntries(blamed.map((s) => [s, sent[s]])) }));
        setSaveState("refused");
      } else if (error.status === 409) setSaveState("conflict");
      else setSaveState("offline");
    } finally {
      busy.current = false;
    }
  }, [id]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: server and refused are what a finished request changes
  useEffect(() => {
    const waiting = SECTIONS.some((s) => dirty[s] !== undefined && dirty[s] !== refused[s]);
    if (saveState === "conflict") return;
    if (!waiting) {
      if (Object.keys(refused).length > 0 && saveState === "saved") setSaveState("refused");
      return;
    }
    if (saveState === "saved" || saveState === "refused") setSaveState("waiting");
    const timer = setTimeout(save, saveState === "offline" ? RETRY_MS : QUIET_MS);
    return () => clearTimeout(timer);
  }, [dirty, refused, server, saveState, save]);

  const edit = useCallback(<S extends Section>(section: S, value: Draft[S]) => {
    const before = latest.current;
    setHistory((past) => [
      ...past.slice(1 - UNDO_DEPTH),
      { [section]: before.dirty[section] ?? pick(before.server.document)[section] },
    ]);
    setDirty((current) => ({ ...current, [section]: value }));
  }, []);

  const undo = useCallback(() => {
    const last = history.at(-1);
    if (!last) return;
    setDirty((current) => ({ ...current, ...last }));
    setHistory((past) => past.slice(0, -1));
  }, [history]);

  const adopt = useCallback((fitting: Fitting) => setServer(fitting), []);

  const reload = useCallback(async () => {
    const reply = await unwrap(api.GET("/api/fittings/{fitting_id}", { params: { path: { fitting_id: id } } }));
    // an edit that was answered meanwhile is newer than this
    setServer((current) => (reply.revision >= current.revision ? reply : current));
  }, [id]);

  const resolve = useCallback(
    async (keep: "mine" | "theirs") => {
      await reload();
      if (keep === "theirs") {
        setDirty({});
        setRefused({});
        setFaults([]);
      }
      setSaveState("saved");
    },
    [reload],
  );

  return { server, draft, saveState, faults, edit, undo, canUndo: history.length > 0, resolve, reload, adopt };
}
