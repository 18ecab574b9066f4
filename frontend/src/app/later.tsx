import { type ComponentType, createElement, type ReactNode, useEffect, useState } from "react";

/** The program of a part, fetched when the part is first shown or before; one that could not be had is fetched again. */
export class Program<P extends object = object> {
  found: ComponentType<P> | null = null;
  private coming: Promise<void> | null = null;

  constructor(private readonly get: () => Promise<{ default: ComponentType<P> }>) {}

  load(): Promise<void> {
    this.coming ??= this.get().then(
      (program) => {
        this.found = program.default;
      },
      (error: unknown) => {
        this.coming = null;
        throw error;
      },
    );
    return this.coming;
  }
}

interface Props<P extends object> {
  of: Program<P>;
  props: P;
  waiting?: ReactNode;
  /** A program that cannot be had is asked for again, every few seconds, while the rest of the page goes on. */
  again?: boolean;
}

const AGAIN_MS = 3000;

/**
 * A part as soon as its program is there. React's own `lazy` holds a part back for 300 ms once it has shown that it waits.
 * A program that cannot be had is thrown to the boundary around it, or asked for again.
 */
export function Later<P extends object>({ of, props, waiting = null, again = false }: Props<P>) {
  const [, setThere] = useState<Program<P> | null>(null);
  const [failed, setFailed] = useState<{ of: Program<P>; error: unknown } | null>(null);
  // what this rendering found missing: the program may come before the effect runs
  const missing = of.found === null;
  useEffect(() => {
    if (!missing) return;
    let here = true;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const get = () =>
      void of.load().then(
        () => here && setThere(of),
        (error: unknown) => {
          if (!here) return;
          if (again) timer = setTimeout(get, AGAIN_MS);
          else setFailed({ of, error });
        },
      );
    get();
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [of, missing, again]);
  if (failed?.of === of) throw failed.error;
  return of.found ? createElement(of.found, props) : waiting;
}
