import { useEffect, useEffectEvent, useState } from "react";
import { useRemembered } from "./useRemembered";

interface Typed {
  text: string;
  /** What stood in the field when it was begun. */
  over: string;
}

/**
 * The text of a field that is not taken, and how to keep it: it is there again after another step and a reload, if what it
 * was typed over still stands there. Without a name it is of the part alone.
 */
export function useTyped(name: string | null, stands: string): readonly [Typed | null, (text: string | null) => void] {
  const [held, hold] = useRemembered<Typed | null>(`typed ${name}`, null);
  const [typed, setTyped] = useState(name !== null && held?.over === stands ? held : null);
  return [
    typed,
    (text) => {
      const next = text === null ? null : { text, over: typed?.over ?? stands };
      setTyped(next);
      if (name !== null && (next !== null || held !== null)) hold(next);
    },
  ];
}

/** A field whose text is taken on leaving it, or when it is shown again; what is wrong is said and stays. */
export function useTakenOnLeaving(
  name: string,
  stands: string,
  wrongIn: (text: string) => string | undefined,
  onTake: (text: string) => void,
) {
  const [typed, type] = useTyped(name, stands);
  const text = typed?.text ?? stands;
  const wrong = wrongIn(text);
  const take = () => {
    if (typed === null || wrong !== undefined) return;
    onTake(text);
    type(null);
  };
  const takeWhatWasLeft = useEffectEvent(take);
  useEffect(() => takeWhatWasLeft(), []);
  return { text, wrong, type, take, over: typed?.over ?? stands };
}
