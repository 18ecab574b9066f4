import { Menu, useMantineColorScheme } from "@mantine/core";
import { Link } from "react-router";
import { DeviceStates } from "../devices/DeviceStates";
import { useQueue } from "../strikes/queue";
import { showPercent } from "../units/units";
import { useStore, useUnits } from "./context";
import classes from "./Frame.module.css";
import { useSetUnits } from "./session";

const SAVE_WORDS = {
  saved: "saved",
  waiting: "not saved yet",
  saving: "saving",
  offline: "no connection, kept here",
  conflict: "changed elsewhere",
} as const;

/** One line, always true: who, hand, ground mix, school, units, devices, save state. */
export function Strip({ onBench }: { onBench: () => void }) {
  const store = useStore();
  const queue = useQueue();
  const units = useUnits();
  const setUnits = useSetUnits();
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const { player, grounds } = store.draft;
  const school = Object.entries(player.schools).filter(
    ([key, value]) =>
      value !== "measured" &&
      !(key === "clubs" && value === "club_per_shot") &&
      !(key === "gaps" && value === "equal_carry"),
  ).length;
  const mix = grounds.map((g) => `${g.name} ${showPercent(g.share)}`).join(" · ");
  const refusedWords = `not saved: ${store.faults.length} to mend`;
  const words = store.saveState === "refused" ? refusedWords : SAVE_WORDS[store.saveState];
  const speedFor = { m: "mps", yd: "mph" } as const;
  const other = units.distance === "m" ? "yd" : "m";
  return (
    <header className={classes.strip}>
      <Link to="/" className={classes.mark} title="All players">
        Oblatus
      </Link>
      <span className={classes.who}>{player.name}</span>
      <span className={classes.facts}>
        <span>{player.hand} hand</span>
        <span>{player.handicap === null ? "handicap unknown" : `handicap ${player.handicap}`}</span>
        <span title={mix}>{mix}</span>
        <span>{school === 0 ? "as measured" : `${school} ${school === 1 ? "school" : "schools"} chosen`}</span>
      </span>
      <span className={classes.tools}>
        <DeviceStates />
        {queue.waiting.length > 0 && (
          <span className={classes.waiting} data-offline={queue.offline} role="status" aria-label="Strikes waiting">
            {queue.waiting.length} {queue.waiting.length === 1 ? "strike waits" : "strikes wait"}
            {queue.offline ? " for a connection" : ""}
          </span>
        )}
        {store.saveState === "conflict" ? (
          <Menu>
            <Menu.Target>
              <button type="button" className={`${classes.tool} ${classes.save}`} data-state="conflict">
                {words}
              </button>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Item onClick={() => store.resolve("mine")}>Save this screen over it</Menu.Item>
              <Menu.Item onClick={() => store.resolve("theirs")}>Take the other screen's</Menu.Item>
            </Menu.Dropdown>
          </Menu>
        ) : (
          <span className={classes.save} data-state={store.saveState} role="status">
            {words}
          </span>
        )}
        <button type="button" className={classes.tool} onClick={store.undo} disabled={!store.canUndo} title="Ctrl Z">
          Undo
        </button>
        <a
          className={`${classes.tool} ${classes.wide}`}
          style={linkStyle}
          href={`/api/fittings/${store.server.id}/export`}
          download
        >
          Save to file
        </a>
        <button
          type="button"
          className={`${classes.tool} ${classes.wide}`}
          title="Change the units"
          onClick={() => setUnits.mutate({ distance: other, speed: speedFor[other] })}
        >
          {units.distance === "m" ? "m, m/s" : "yd, mph"}
        </button>
        <button
          type="button"
          className={`${classes.tool} ${classes.wide}`}
          title="Day or Bay light"
          onClick={() => setColorScheme(colorScheme === "dark" ? "light" : "dark")}
        >
          {colorScheme === "dark" ? "Bay" : "Day"}
        </button>
        <button type="button" className={`${classes.tool} ${classes.benchToggle}`} onClick={onBench}>
          The set
        </button>
      </span>
    </header>
  );
}

const linkStyle = { display: "inline-flex", alignItems: "center", textDecoration: "none" };
