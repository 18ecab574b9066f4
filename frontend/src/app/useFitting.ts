import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { v4 as newId } from "uuid";
import {
  api,
  type Conflict,
  type Edited,
  type Fault,
  type Fitting,
  lost,
  NO_ANSWER,
  RequestError,
  unwrap,
} from "../api/client";
import { inTurns } from "../api/inTurns";
import type { Deed } from "../history/acts";
import { changesOf, same, withValue } from "../history/changes";
import { useHistory } from "../history/useHistory";
import { deedsOf } from "../offline/deeds";
import { tabName } from "../offline/tab";
import {
  afterSave,
  type Draft,
  hasCodes,
  isEmpty,
  keepDraft,
  keptDraft,
  leftDraft,
  SECTIONS,
  type Section,
  type Sections,
  sectionOf,
  type Wedges,
} from "./drafts";

export type { Section } from "./drafts";

/** How the draft stands with the server; each word is shown as it is true. */
export type SaveState =
  | "saved"
  | "saving"
  | "waiting"
  | "offline"
  | "busy"
  | "signed_out"
  | "gone"
  | "refused"
  | "conflict";

const QUIET_MS = 25;
const RETRY_MS = 3000;
const LONGEST_MS = 60_000;
const MOST_ATTEMPTS = 20;
const LONGEST_HELD_MS = 10_000;

export interface FittingStore {
  /** What the server holds, with the proposal made from it. */
  server: Fitting;
  /** What is on the screen: the server's document with the edits not yet saved. */
  draft: Sections;
  saveState: SaveState;
  /** Whether this browser keeps what the server does not have yet: it may have no room. */
  draftKept: boolean;
  faults: Fault[];
  /** Fields that somebody else changed too, to be chosen one by one. */
  conflicts: Conflict[];
  /** Change a section; an act that waited for an answer tells what it makes of the section as it is by then. */
  edit: <S extends Section>(section: S, value: Sections[S] | ((now: Sections[S]) => Sections[S])) => void;
  /** Several sections in one act: they go out together, and are taken back together. */
  editAll: (values: Partial<Sections>) => void;
  undo: () => void;
  redo: () => void;
  canUndo: boolean;
  canRedo: boolean;
  /** What could not be taken back because it was changed again meanwhile. */
  undoProblem: string | null;
  /** A deed of another kind than an edit, to be taken back in its turn. */
  did: (deed: Deed) => void;
  /** Who takes back deeds of another kind. */
  onDeed: (redo: (deed: Deed, back: boolean) => void) => void;
  resolve: (conflict: Conflict, keep: "mine" | "theirs") => void;
  /** Have the next edit go out once an act on the fitting as it is saved now is answered: it was made after it. */
  goAfter: (act: Promise<unknown>) => void;
  /** Read the fitting again; not where it is known at revision `upTo`, once an edit that is on its way is answered. */
  reload: (upTo?: number, signal?: AbortSignal) => Promise<void>;
  /** Read the fitting again after something was done to it: nobody waits for it, and it is tried until it is read. */
  refresh: () => void;
  adopt: (fitting: Fitting) => void;
}

interface Inputs {
  initial: Fitting;
  fitter: string;
  /** Whether the page may act: nobody is signed in any more while it is false. */
  open: boolean;
}

const pick = (fitting: Fitting): Sections =>
  Object.fromEntries(SECTIONS.map((s) => [s, fitting.document[s]])) as unknown as Sections;

const pathOf = (path: string) => path.split(".").map((step) => (/^\d+$/.test(step) ? Number(step) : step));

/**
 * Autosave of one fitting: edits show at once, are kept in the browser until the server has them, and go out one request
 * at a time with what they were made on, so that the server merges them field by field with what others changed.
 */
export function useFitting({ initial, fitter, open }: Inputs): FittingStore {
  const id = initial.id;
  const deedsKey = `${deedsOf(fitter)}${id}-${tabName()}`;
  const [server, setServer] = useState(initial);
  const [draft, setDraft] = useState<Draft>(() => keptDraft(fitter, id));
  const [draftKept, setDraftKept] = useState(true);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [conflicts, setConflicts] = useState<Conflict[]>([]);
  const [saveState, setSaveState] = useState<SaveState>("saved");
  const [tries, setTries] = useState(0);
  const wait = useRef(0);
  /** Whether what goes out waits for its next try: known here before the page is drawn anew and says so. */
  const paused = useRef(false);
  const busy = useRef<Promise<void> | null>(null);
  /** Acts that were made before the next edit. */
  const ahead = useRef<Promise<void> | null>(null);
  const settled = useRef<{ path: string; theirs: unknown }[]>([]);
  /** Sections as they were refused or in conflict: sent again only once they are changed. */
  const held = useRef<Partial<Sections>>({});
  const latest = useRef({ server, draft });
  latest.current = { server, draft };
  /** Whether an edit may go out as it is made: somebody is signed in, and nothing waits for its next try. */
  const ready = useRef(open);
  ready.current = open && !LATER.includes(saveState);

  const shown = useMemo<Sections>(() => ({ ...pick(server), ...draft.mine }), [server, draft]);

  const put = useCallback(
    (next: Draft) => {
      latest.current = { ...latest.current, draft: next };
      setDraftKept(keepDraft(fitter, id, next));
      setDraft(next);
    },
    [fitter, id],
  );

  const take = useCallback((reply: Fitting) => {
    latest.current = { ...latest.current, server: reply };
    setServer(reply);
  }, []);

  // what a tab that was closed left unsaved is saved from here
  const empty = isEmpty(draft);
  useEffect(() => {
    if (!empty) return;
    let here = true;
    leftDraft(fitter, id).then((left) => here && left && isEmpty(latest.current.draft) && put(left));
    return () => {
      here = false;
    };
  }, [empty, fitter, id, put]);

  const landed = useCallback(
    (reply: Edited, sent: Partial<Sections>) => {
      take(reply);
      const going = Object.keys(sent) as Section[];
      put(afterSave(latest.current.draft, reply, sent, held.current));
      setFaults((current) => [
        ...current.filter((f) => !going.includes(sectionOf(f.field) as Section)),
        ...reply.refused,
      ]);
      setConflicts((current) => [
        ...current.filter((c) => !going.includes(sectionOf(c.path) as Section)),
        ...reply.conflicts,
      ]);
      settled.current = [];
    },
    [put, take],
  );

  const send = useCallback(async () => {
    const { draft: now, server: known } = latest.current;
    const going = SECTIONS.filter((s) => now.mine[s] !== undefined && now.mine[s] !== held.current[s]);
    if (going.length === 0) return;
    setSaveState("saving");
    paused.current = false;
    const sent = Object.fromEntries(going.map((s) => [s, now.mine[s]])) as Partial<Sections>;
    const base = Object.fromEntries(going.map((s) => [s, now.base[s] ?? known.document[s]]));
    const before = now.attempts.at(-1);
    const edit_id = before && same(before.sections, sent) ? before.edit_id : newId();
    if (edit_id !== before?.edit_id)
      put({ ...now, attempts: [...now.attempts, { edit_id, sections: sent }].slice(-MOST_ATTEMPTS) });
    const attempts = now.attempts.filter((attempt) => attempt.edit_id !== edit_id);
    try {
      const body = {
        revision: now.revision || known.revision,
        edit_id,
        base,
        attempts,
        settled: settled.current,
        wedges: now.wedges ?? null,
        drop_rack: false,
      };
      const reply = await unwrap(
        api.PATCH("/api/fittings/{fitting_id}", {
          params: { path: { fitting_id: id } },
          body: { ...body, ...sent },
          signal: lost(),
        }),
      );
      wait.current = 0;
      landed(reply, sent);
      setSaveState("saved");
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      if (error.status === 422 && error.body) {
        const found = error.body.faults ?? [];
        const bad = going.filter((s) => found.some((fault) => sectionOf(fault.field) === s));
        const blamed = bad.length > 0 ? bad : going;
        Object.assign(held.current, Object.fromEntries(blamed.map((s) => [s, sent[s]])));
        setFaults((current) => [...current.filter((f) => !blamed.includes(sectionOf(f.field) as Section)), ...found]);
        // nothing of this one was taken; those before it that got no answer may have been
        put({ ...latest.current.draft, attempts });
        setSaveState("refused");
      } else {
        wait.current = Math.min(Math.max(2 * wait.current, RETRY_MS, 1000 * (error.after ?? 0)), LONGEST_MS);
        if (error.status === NO_ANSWER) wait.current = RETRY_MS;
        paused.current = true;
        setSaveState(whyNot(error));
        setTries((n) => n + 1);
      }
    }
  }, [id, landed, put]);

  const save = useCallback(async () => {
    if (busy.current) return;
    busy.current = ahead.current ? ahead.current.then(send) : send();
    try {
      await busy.current;
    } finally {
      busy.current = null;
    }
  }, [send]);

  const goAfter = useCallback((act: Promise<unknown>) => {
    const answered = Promise.allSettled([ahead.current, act]); // whoever acted hears what came of it
    const longest = new Promise((done) => setTimeout(done, LONGEST_HELD_MS));
    const over = Promise.race([answered, longest]).then(() => {
      if (ahead.current === over) ahead.current = null;
    });
    ahead.current = over;
  }, []);

  // biome-ignore lint/correctness/useExhaustiveDependencies: server and tries are what a finished request changes
  useEffect(() => {
    const waiting = SECTIONS.some((s) => draft.mine[s] !== undefined && draft.mine[s] !== held.current[s]);
    if (!waiting) {
      if (saveState === "saving") return;
      paused.current = false;
      setSaveState(conflicts.length > 0 ? "conflict" : isEmpty(draft) ? "saved" : "refused");
      return;
    }
    if (!open) return setSaveState("signed_out");
    if (saveState !== "saving" && !LATER.includes(saveState)) setSaveState("waiting");
    const soon = () => void (paused.current || save());
    const timer = LATER.includes(saveState) ? setTimeout(save, wait.current) : setTimeout(soon, QUIET_MS);
    const atOnce = () => void save();
    window.addEventListener("online", atOnce);
    return () => {
      clearTimeout(timer);
      window.removeEventListener("online", atOnce);
    };
  }, [draft, server, saveState, save, open, tries, conflicts]);

  // signed in again: what waited goes at once
  useEffect(() => {
    if (!open) return;
    paused.current = false;
    setSaveState((state) => (state === "signed_out" ? "waiting" : state));
  }, [open]);

  const change = useCallback(
    (name: string, value: unknown, wedges?: Wedges) => {
      const section = name as Section;
      const now = latest.current.draft;
      const known = latest.current.server;
      const base = now.base[section] === undefined ? { ...now.base, [section]: known.document[section] } : now.base;
      const next = { ...now, revision: now.revision || known.revision, base, mine: { ...now.mine, [section]: value } };
      // what a screen calls a club by stands on the bag that is saved, unless they come together
      if (hasCodes(section)) next.wedges = wedges ?? now.wedges ?? known.document.bag.wedges;
      put(next);
    },
    [put],
  );

  const valueIn = useCallback(
    (section: string) =>
      latest.current.draft.mine[section as Section] ?? latest.current.server.document[section as Section],
    [],
  );
  const changeAll = useCallback(
    (values: Partial<Sections>) => {
      for (const section of SECTIONS) if (section in values) change(section, values[section], values.bag?.wedges);
    },
    [change],
  );
  const history = useHistory({ name: deedsKey, read: valueIn, put: changeAll });
  const { did } = history;

  const editAll = useCallback(
    (values: Partial<Sections>) => {
      const found = SECTIONS.filter((section) => section in values)
        .map((section) => ({ section, changes: changesOf(valueIn(section), values[section]) }))
        .filter(({ changes }) => changes.length > 0);
      const act = found.length > 1 ? { act: newId() } : {};
      for (const { section, changes } of found) did({ kind: "edit", section, changes, ...act });
      changeAll(Object.fromEntries(found.map(({ section }) => [section, values[section]])));
      // before the page is drawn anew, which takes as long as half the answer
      if (ready.current && !paused.current) void save();
    },
    [changeAll, did, valueIn, save],
  );
  const edit = useCallback(
    <S extends Section>(section: S, value: Sections[S] | ((now: Sections[S]) => Sections[S])) =>
      editAll({ [section]: typeof value === "function" ? value(valueIn(section) as Sections[S]) : value }),
    [editAll, valueIn],
  );

  const read = useCallback(
    async (signal?: AbortSignal) => {
      const reply = await unwrap(
        api.GET("/api/fittings/{fitting_id}", { params: { path: { fitting_id: id } }, signal }),
      );
      // an edit that was answered meanwhile is newer than this
      if (reply.revision >= latest.current.server.revision) take(reply);
    },
    [id, take],
  );
  // strikes may come faster than answers: those that wait would keep the browser's few lines to the server
  const readInTurns = useMemo(() => inTurns(read), [read]);
  const reload = useCallback(
    async (upTo?: number, signal?: AbortSignal) => {
      await busy.current?.catch(() => {}); // whoever sent it hears what came of it
      if (upTo !== undefined && latest.current.server.revision >= upTo) return;
      await (signal ? read(signal) : readInTurns());
    },
    [read, readInTurns],
  );

  const again = useRef<ReturnType<typeof setTimeout>>(undefined);
  const here = useRef(true);
  const signedIn = useRef(open);
  signedIn.current = open;
  const refresh = useCallback(() => {
    const later = () => {
      clearTimeout(again.current);
      if (here.current) again.current = setTimeout(refresh, RETRY_MS);
    };
    clearTimeout(again.current);
    if (!signedIn.current) return later();
    reload().catch((error) => {
      if (!(error instanceof RequestError && error.refused)) later();
    });
  }, [reload]);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
      clearTimeout(again.current);
    };
  }, []);

  const resolve = useCallback(
    (conflict: Conflict, keep: "mine" | "theirs") => {
      const section = sectionOf(conflict.path);
      if (!section) return;
      setConflicts((current) => current.filter((c) => c.path !== conflict.path));
      const now = latest.current.draft;
      const value = now.mine[section] ?? latest.current.server.document[section];
      const inside = pathOf(conflict.path).slice(1);
      if (keep === "mine") {
        settled.current = [...settled.current, { path: conflict.path, theirs: conflict.value }];
        put({ ...now, mine: { ...now.mine, [section]: Array.isArray(value) ? [...value] : { ...value } } });
      } else put({ ...now, mine: { ...now.mine, [section]: withValue(value, inside, conflict.value) } });
    },
    [put],
  );

  return {
    server,
    draft: shown,
    saveState,
    draftKept,
    faults,
    conflicts,
    edit,
    editAll,
    undo: history.undo,
    redo: history.redo,
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    undoProblem: history.problem,
    did,
    onDeed: history.onDeed,
    resolve,
    goAfter,
    reload,
    refresh,
    adopt: useCallback(
      (fitting: Fitting) => {
        if (fitting.revision >= latest.current.server.revision) take(fitting);
      },
      [take],
    ),
  };
}

/**
 * Whether the server's answers are about what it holds for good: no edit is on its way. A field that is to be mended, or
 * chosen, stays out of it for as long as it takes.
 */
export const isAtRest = (state: SaveState) => state === "saved" || state === "refused" || state === "conflict";

/** States in which a draft is tried again later. */
const LATER: readonly SaveState[] = ["offline", "busy", "signed_out", "gone"];

function whyNot(error: RequestError): SaveState {
  if (error.status === NO_ANSWER) return "offline";
  if (error.status === 401) return "signed_out";
  return error.status === 404 ? "gone" : "busy";
}
