import { Button } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { useMemo, useState } from "react";
import type { Club, Scenario } from "../../api/client";
import { figureOf, TABLES } from "../../api/tables";
import { useStore, useUnits } from "../../app/context";
import desk from "../../desk/Desk.module.css";
import { Dials } from "../../desk/Dials";
import { groundHere, type Setup } from "../../desk/setup";
import { useDesk } from "../../desk/useDesk";
import { SolePass } from "../../pictures/SolePass/SolePass";
import { StrikeWindows } from "../../pictures/StrikeWindows/StrikeWindows";
import { plain, trimmed } from "../../units/units";
import classes from "./Soles.module.css";
import { WindowTable } from "./WindowTable";

const SHOWN = 6;
const SPEED = figureOf(TABLES.swing, "speed_mps");

/** Pass, windows and dials for one club in one scenario: the player's own setup until a dial is turned. */
export function PassView({ club, scenario }: { club: Club; scenario: Scenario }) {
  const { draft } = useStore();
  const units = useUnits();
  const home = useHome(club, scenario);
  const [turned, setTurned] = useState<Setup | null>(null);
  const [focus, setFocus] = useState(0);
  const [table, setTable] = useState(false);
  const [pinned, setPinned] = useState<string | null>(null);
  const setup = turned ?? home;
  const shown = club.candidates.slice(0, SHOWN);
  const { answer, failure } = useDesk({ ...setup, heads: shown.map((c) => c.head), twins: false });
  useHotkeys([
    ["C", () => setFocus((i) => (i + 1) % shown.length)],
    ["T", () => setTable((shown) => !shown)],
    ["G", () => setPinned((was) => (was ? null : (shown[focus]?.code ?? null)))],
  ]);
  const first = answer?.heads[0];
  const ghostIndex = pinned ? shown.findIndex((c) => c.code === pinned) : focus;
  const ghost = ghostIndex > 0 ? answer?.heads[ghostIndex] : undefined;
  if (!first || answer.heads.length !== shown.length)
    return failure ? (
      <p role="alert" className={desk.failure}>
        {failure}
      </p>
    ) : (
      <div className={classes.waiting} aria-busy="true" />
    );
  return (
    <>
      <SolePass
        head={first}
        ghost={ghost}
        ghostName={shown[ghostIndex]?.name}
        setup={setup}
        unit={units.distance}
        thatchMm={answer.thatch_mm}
        onEntry={(entry_mm) => setTurned({ ...setup, entry_mm })}
      />
      <StrikeWindows
        rows={shown.map((c, i) => ({
          name: c.name,
          note: `${trimmed(c.head.bounce_deg)}° · ${plain(c.head.sole_width_mm ?? 20)}\u00a0mm`,
          head: answer.heads[i] ?? first,
        }))}
        sand={setup.ground.kind === "sand"}
        entryMm={home.entry_mm}
        spreadMm={home.entry_spread_mm}
        whose={draft.player.delivery.entry_mm.source === "assumed" ? "entries, assumed" : "where the sole lands"}
        focus={focus}
        onFocus={setFocus}
      />
      <Dials setup={setup} home={home} onChange={setTurned} />
      <div className={desk.verdict}>
        <span className={desk.light} data-light={first.risk}>
          {first.risk}
        </span>
        <span className={classes.rule}>{first.risk_rule}</span>
        <span className={classes.keys}>
          <kbd>C</kbd> next head <kbd>T</kbd> table <kbd>G</kbd>{" "}
          {pinned ? "let the comparison go" : "pin the comparison"}
        </span>
        <Button variant="default" size="xs" disabled={turned === null} onClick={() => setTurned(null)}>
          Back to the player's setup
        </Button>
      </div>
      {table && <WindowTable candidates={shown} heads={answer.heads} />}
      {failure && (
        <p role="alert" className={desk.failure}>
          {failure}
        </p>
      )}
    </>
  );
}

/** The player's own setup for a scenario, as the desk takes it. */
function useHome(club: Club, scenario: Scenario): Setup {
  const { draft } = useStore();
  const { attack_deg, lean_deg, entry_mm } = draft.player.delivery;
  const here = club.situations.find((d) => d.scenario === scenario.key);
  const speed = here?.speed_mps;
  const opening = here?.opening_deg ?? scenario.opening_deg;
  return useMemo(
    () => ({
      ground: groundHere(scenario.ground_here),
      opening_deg: opening,
      lean_deg: scenario.lean_deg,
      attack_deg: scenario.attack_deg,
      speed_mps: Math.min(Math.max(speed ?? SPEED.usual ?? 0, SPEED.low), SPEED.high),
      release: scenario.release,
      entry_mm: scenario.entry_mm,
      attack_spread_deg: attack_deg.spread,
      lean_spread_deg: lean_deg.spread,
      entry_spread_mm: entry_mm.spread,
    }),
    [scenario, speed, opening, attack_deg.spread, lean_deg.spread, entry_mm.spread],
  );
}
