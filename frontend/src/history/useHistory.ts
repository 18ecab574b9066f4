import { useCallback, useEffect, useRef, useState } from "react";
import { type Deed, type History, keepHistory, keptHistory, type Typing, together, withDeed } from "./acts";
import { same, valueAt, withValue } from "./changes";

interface Inputs {
  /** Under which name the browser keeps it. */
  name: string;
  /** A section as it stands on the screen. */
  read: (section: string) => unknown;
  /** Put a section in place without making a new deed of it. */
  put: (section: string, value: unknown) => void;
}

/** What was done on a page, deed by deed, to be taken back and done again; it survives a reload. */
export function useHistory({ name, read, put }: Inputs) {
  const [history, setHistory] = useState<History>(() => keptHistory(name));
  const [problem, setProblem] = useState<string | null>(null);
  const typing = useRef<Typing>({ at: 0, left: true });
  const latest = useRef(history);
  latest.current = history;
  const others = useRef<(deed: Deed, back: boolean) => void>(() => {});

  useEffect(() => keepHistory(name, history), [name, history]);
  useEffect(() => {
    const leave = () => {
      typing.current = { ...typing.current, left: true };
    };
    document.addEventListener("focusout", leave);
    return () => document.removeEventListener("focusout", leave);
  }, []);

  const did = useCallback((deed: Deed) => {
    const now = Date.now();
    const before = typing.current;
    setHistory((past) => withDeed(past, deed, before, now));
    typing.current = { at: now, left: deed.kind !== "edit" };
    setProblem(null);
  }, []);

  const turn = useCallback(
    (back: boolean, before?: Deed) => {
      const { past, future } = latest.current;
      const deed = back ? past.at(-1) : future.at(-1);
      if (!deed) return;
      const next = back
        ? { past: past.slice(0, -1), future: [...future, deed] }
        : { past: [...past, deed], future: future.slice(0, -1) };
      latest.current = next;
      setHistory(next);
      typing.current = { ...typing.current, left: true };
      if (deed.kind !== "edit") return others.current(deed, back);
      let value = read(deed.section);
      let passed = 0;
      for (const one of deed.changes) {
        const [from, to] = back ? [one.after, one.before] : [one.before, one.after];
        // somebody changed it since: theirs stays
        if (!same(valueAt(value, one.path), from)) passed += 1;
        else value = withValue(value, one.path, to);
      }
      if (passed > 0) setProblem("Changed again since: it stays as it is.");
      else if (!before) setProblem(null);
      if (passed < deed.changes.length) put(deed.section, value);
      if (together(deed, back ? next.past.at(-1) : next.future.at(-1))) turn(back, deed);
    },
    [read, put],
  );

  return {
    did,
    undo: useCallback(() => turn(true), [turn]),
    redo: useCallback(() => turn(false), [turn]),
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    problem,
    onDeed: useCallback((redo: (deed: Deed, back: boolean) => void) => {
      others.current = redo;
    }, []),
  };
}
