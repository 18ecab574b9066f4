import type { ReactNode } from "react";
import classes from "./parts.module.css";

/** What may be wider than the screen: it moves within itself, by finger or arrow keys, and the page stays where it is. */
export function Wide({ label, children }: { label: string; children: ReactNode }) {
  return (
    <section className={classes.wide} aria-label={label} tabIndex={0}>
      {children}
    </section>
  );
}
