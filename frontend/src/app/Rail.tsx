import { Link } from "react-router";
import { useStore } from "./context";
import classes from "./Frame.module.css";
import { STEPS } from "./steps";

const FILL: Record<string, number> = { empty: 0, partly: 55, done: 100, stale: 100 };
const WORD: Record<string, string> = {
  empty: "empty",
  partly: "partly",
  done: "done",
  stale: "stale",
};

/** The steps of the job; each shows by shape and word how far it is. */
export function Rail({ current }: { current: string }) {
  const { server } = useStore();
  return (
    <nav className={classes.rail} aria-label="Steps">
      {STEPS.map((step) => {
        const state = server.steps[step.key] ?? "empty";
        return (
          <Link
            key={step.key}
            to={`/fittings/${server.id}/${step.key}`}
            className={classes.step}
            aria-current={step.key === current ? "step" : undefined}
          >
            <span className={classes.key} aria-hidden>
              {step.hotkey}
            </span>
            <span>{step.name}</span>{" "}
            <span className={classes.bar} data-state={state} aria-hidden>
              <i style={{ width: `${FILL[state]}%` }} />
            </span>
            <span className={classes.state}>{WORD[state]}</span>
          </Link>
        );
      })}
    </nav>
  );
}
