import { type ReactNode, useEffect, useRef } from "react";
import classes from "./parts.module.css";

/** Title of a step with its switches, and what the picture below stands for at the right. */
export function StepHead({ title, children, aside }: { title: string; children?: ReactNode; aside?: ReactNode }) {
  const heading = useRef<HTMLHeadingElement>(null);
  // who comes by a step key or the rail goes on from the heading; whoever is in a field stays there
  useEffect(() => {
    const at = document.activeElement;
    if (at === null || at === document.body || at.id === "work" || at.closest("nav")) heading.current?.focus();
  }, []);
  return (
    <header className={classes.head}>
      <h1 ref={heading} tabIndex={-1}>
        {title}
      </h1>
      {children}
      <span className={classes.aside}>{aside}</span>
    </header>
  );
}
