import type { ReactNode } from "react";
import classes from "./State.module.css";

/** How a device goes: a square that is filled while it is live and red when it is lost, and the words beside it. */
export function State({ state, children }: { state: string; children: ReactNode }) {
  return (
    <span className={classes.state} data-state={state} role="status">
      {children}
    </span>
  );
}
