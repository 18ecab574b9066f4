import { useCallback, useEffect, useRef, useState } from "react";
import { type Deed, type History, keepHistory, keptHistory, type Typing, together, withDeed } from "./acts";
import { same, valueAt, withValue } from "./changes";

interface Inputs {
  /** Under which name the browser keeps it. */
  name: string;
  /** A section as it stands on the screen. */
  read: (section: string) => unknown;
  /** Put sections in place together, without making a new deed of them. */
  put: (values: Record<string, unknown>) => void;
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
    (back: boolean) => {
      const last = ({ past, future }: History) => (back ? past : future).at(-1);
      const values: Record<string, unknown> = {};
      let passed = 0;
      for (let deed = last(latest.current); deed; ) {
        const { past, future } = latest.current;
        const next: History = back
          ? { past: past.slice(0, -1), future: [...future, deed] }
          : { past: [...past, deed], future: future.slice(0, -1) };
        latest.current = next;
        setHistory(next);
        typing.current = { ...typing.current, left: true };
        if (deed.kind !== "edit") return others.current(deed, back);
        let value = read(deed.section);
        for (const one of deed.changes) {
          const [from, to] = back ? [one.after, one.before] : [one.before, one.after];
          // somebody changed it since: theirs stays
          if (!same(valueAt(value, one.path), from)) passed += 1;
          else values[deed.section] = value = withValue(value, one.path, to);
        }
        const another = last(next);
        deed = together(deed, another) ? another : undefined;
      }
      setProblem(passed > 0 ? "Changed again since: it stays as it is." : null);
      put(values);
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
