import { useMantineColorScheme } from "@mantine/core";
import { spotlight } from "@mantine/spotlight";
import { Link } from "react-router";
import { TABLES } from "../api/tables";
import { DeviceStates } from "../devices/DeviceStates";
import { useSetUnits } from "../session/session";
import { useQueue } from "../strikes/queue";
import type { Pause } from "../strikes/useStrikeQueue";
import { waitingWords } from "../strikes/waiting";
import { showLongDay, showMoment, today } from "../units/days";
import { counted, showPercent } from "../units/units";
import { goToConflicts } from "./Conflicts";
import { useStore, useUnits } from "./context";
import classes from "./Frame.module.css";
import { ToMend } from "./ToMend";

const saveWords = (here: string) => ({
  saved: "saved",
  waiting: "not saved yet",
  saving: "saving",
  offline: `no connection, ${here}`,
  busy: "not saved yet, tried again",
  signed_out: `signed out, ${here}`,
  gone: `removed elsewhere, ${here}`,
  conflict: "changed by somebody else too",
});

const PAUSE_WORDS: Record<Pause, string> = {
  offline: " for a connection",
  signed_out: " for you to sign in",
  busy: ", tried again",
};

interface Props {
  /** When this was heard, if it is not fresh. */
  old: number | null;
  onBench: () => void;
}

/** One line, always true: who, hand, ground mix, school, units, devices, save state. */
export function Strip({ old, onBench }: Props) {
  const store = useStore();
  const queue = useQueue();
  const units = useUnits();
  const setUnits = useSetUnits();
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const { player, grounds } = store.draft;
  const chosen: Record<string, string> = player.schools;
  const school = TABLES.schools.filter(({ key, usual }) => chosen[key] !== usual).length;
  const mix = grounds.map((g) => `${g.name} ${showPercent(g.share)}`).join(" · ");
  // "saved" is said of everything that was done here, strikes included
  const onTheWay = queue.waiting.length + queue.refused.length;
  const state = store.saveState === "saved" && onTheWay > 0 ? "waiting" : store.saveState;
  const words = saveWords(store.draftKept ? "kept here" : "lost when this page closes");
  const waits = waitingWords(queue.waiting);
  const speedFor = { m: "mps", yd: "mph" } as const;
  const other = units.distance === "m" ? "yd" : "m";
  return (
    <header className={classes.strip}>
      <Link to="/" className={classes.mark} title="All players">
        Oblatus
      </Link>
      <span className={classes.who} title={player.name}>
        {player.name}
      </span>
      <span className={classes.facts}>
        <span>{player.hand} hand</span>
        <span>{player.handicap === null ? "handicap unknown" : `handicap ${player.handicap}`}</span>
        <span title={mix}>{mix}</span>
        <span>{school === 0 ? "no school" : `${counted(school, "school")} chosen`}</span>
      </span>
      <span className={classes.printed}>{showLongDay(today())}</span>
      <span className={classes.tools}>
        <DeviceStates />
        {old !== null && (
          <span className={classes.waiting} role="status" aria-label="How old this is">
            as of {showMoment(new Date(old).toISOString())}
          </span>
        )}
        {queue.waiting.length > 0 && (
          <span
            className={classes.waiting}
            data-offline={queue.pause !== null}
            role="status"
            aria-label="Waiting to be sent"
          >
            {waits.words} {waits.one ? "waits" : "wait"}
            {queue.pause ? PAUSE_WORDS[queue.pause] : ""}
          </span>
        )}
        {queue.refused.length > 0 && (
          <span className={classes.waiting} data-offline role="status" aria-label="Not taken by the server">
            {queue.refused.length} not taken
          </span>
        )}
        <span className={classes.save} data-state={state} role="status">
          {state === "refused" && <ToMend />}
          {state === "conflict" && (
            <button type="button" className={classes.toMend} onClick={goToConflicts}>
              {words[state]}
            </button>
          )}
          {state !== "refused" && state !== "conflict" && words[state]}
        </span>
        {setUnits.isError && (
          <span className={classes.waiting} role="status">
            Units stay: {setUnits.error.message}
          </span>
        )}
        {store.undoProblem && (
          <span className={classes.waiting} role="status">
            {store.undoProblem}
          </span>
        )}
        <button type="button" className={classes.tool} onClick={store.undo} disabled={!store.canUndo} title="Ctrl Z">
          Undo
        </button>
        <button
          type="button"
          className={classes.tool}
          onClick={store.redo}
          disabled={!store.canRedo}
          title="Ctrl Shift Z"
        >
          Redo
        </button>
        <a
          className={`${classes.tool} ${classes.link} ${classes.wide}`}
          href={`/api/fittings/${store.server.id}/export`}
          download
        >
          Save to file
        </a>
        <button
          type="button"
          className={classes.tool}
          title="Change the units"
          onClick={() =>
            setUnits.mutate({ distance: other, speed: speedFor[other] }, { onSuccess: () => store.refresh() })
          }
        >
          {units.distance === "m" ? "m, m/s" : "yd, mph"}
        </button>
        <button
          type="button"
          className={classes.tool}
          title="Day or Bay light"
          onClick={() => setColorScheme(colorScheme === "dark" ? "light" : "dark")}
        >
          {colorScheme === "dark" ? "Bay" : "Day"}
        </button>
        <button type="button" className={`${classes.tool} ${classes.narrowOnly}`} onClick={spotlight.open}>
          Find
        </button>
        <button type="button" className={`${classes.tool} ${classes.benchToggle}`} onClick={onBench}>
          The set
        </button>
      </span>
    </header>
  );
}
