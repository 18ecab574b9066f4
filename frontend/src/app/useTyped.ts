import { useState } from "react";
import { useRemembered } from "./useRemembered";

export interface Typed {
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
