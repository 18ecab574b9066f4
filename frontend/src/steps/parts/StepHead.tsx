import type { ReactNode } from "react";
import classes from "./parts.module.css";

/** Title of a step with its switches, and what the picture below stands for at the right. */
export function StepHead({ title, children, aside }: { title: string; children?: ReactNode; aside?: ReactNode }) {
  return (
    <header className={classes.head}>
      <h1>{title}</h1>
      {children}
      <span className={classes.aside}>{aside}</span>
    </header>
  );
}
