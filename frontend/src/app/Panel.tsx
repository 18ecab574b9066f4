import type { ReactNode } from "react";
import classes from "./Panel.module.css";

interface Props {
  /** What it is about, for whoever does not see it. */
  label: string;
  title: string;
  /** Something to choose, or something that went wrong. */
  kind: "choose" | "wrong";
  children: ReactNode;
}

/** Something above the step that waits for the fitter, and holds nothing else up. */
export function Panel({ label, title, kind, children }: Props) {
  return (
    <section className={classes.panel} data-kind={kind} aria-label={label} role="alert">
      <h2>{title}</h2>
      {children}
    </section>
  );
}
