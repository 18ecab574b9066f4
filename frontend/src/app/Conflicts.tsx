import { Button } from "@mantine/core";
import type { Conflict } from "../api/client";
import { metres, metresPerSecond, showDistance, showSpeed, trimmed } from "../units/units";
import classes from "./Conflicts.module.css";
import { useStore, useUnits } from "./context";
import { Panel } from "./Panel";

const NAME = "Changed by somebody else too";

/** To the first choice, from wherever the step was scrolled to. */
export function goToConflicts() {
  document.querySelector<HTMLElement>(`[aria-label="${NAME}"] button`)?.focus();
}

/** Fields that somebody else changed too, side by side; each is chosen, and nothing of theirs is saved over before. */
export function Conflicts() {
  const { conflicts, resolve } = useStore();
  if (conflicts.length === 0) return null;
  return (
    <Panel kind="choose" label={NAME} title={`Somebody else changed ${conflicts.length === 1 ? "this" : "these"} too`}>
      <table className={classes.table}>
        <thead>
          <tr>
            <th>Field</th>
            <th>Yours</th>
            <th>Theirs, saved</th>
          </tr>
        </thead>
        <tbody>
          {conflicts.map((conflict) => (
            <tr key={conflict.path}>
              <td>{conflict.name}</td>
              <td>
                <span>
                  <Side conflict={conflict} figure={conflict.mine} words={conflict.mine_words} />
                </span>
                <Button size="xs" onClick={() => resolve(conflict, "mine")} aria-label={`Take yours: ${conflict.name}`}>
                  Take yours
                </Button>
              </td>
              <td>
                <span>
                  <Side conflict={conflict} figure={conflict.theirs} words={conflict.theirs_words} />
                </span>
                <Button
                  size="xs"
                  variant="default"
                  onClick={() => resolve(conflict, "theirs")}
                  aria-label={`Take theirs: ${conflict.name}`}
                >
                  Take theirs
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Panel>
  );
}

function Side({ conflict, figure, words }: { conflict: Conflict; figure: number | null; words: string }) {
  return <Figure value={figure} unit={conflict.unit} words={words} />;
}

/** A figure with its unit in the reader's own, or words where it is none. */
export function Figure({ value, unit, words }: { value: number | null; unit: string; words: string }) {
  const units = useUnits();
  if (value === null) return <>{words}</>;
  if (unit === "m") return <>{showDistance(metres(value), units.distance, 1)}</>;
  if (unit === "m/s") return <>{showSpeed(metresPerSecond(value), units.speed)}</>;
  return <>{`${trimmed(value, 3)}${unit === "degrees" ? "°" : unit ? `\u00a0${unit}` : ""}`}</>;
}
