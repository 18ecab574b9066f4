import { type ReactNode, startTransition, useEffect, useState } from "react";

/** What lies below the first screen of a step, drawn as soon as that is painted: a step key shows its step at once. */
export function Below({ children }: { children: ReactNode }) {
  const [there, setThere] = useState(false);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => startTransition(() => setThere(true)));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, []);
  return there ? children : null;
}
