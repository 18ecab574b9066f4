import type { Recommendation } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore, useUnits } from "../../app/context";
import { inDistance, metres, plain, trimmed } from "../../units/units";
import classes from "./Lofts.module.css";

const COUNT_WORDS = ["", "One wedge", "Two wedges", "Three wedges", "Four wedges"];

/** What one, two, three or four wedges would do; a press takes that number. */
export function Options({ lofts }: { lofts: Recommendation["lofts"] }) {
  const { draft, editAll } = useStore();
  const units = useUnits();
  const take = (count: number) => {
    editAll({
      player: { ...draft.player, wedge_count: count },
      choices: { ...draft.choices, ladder_deg: null },
    });
  };
  return (
    <>
      <ul className={classes.options}>
        {lofts.options.map((option) => (
          <li key={option.lofts_deg.length}>
            <button
              type="button"
              className={classes.option}
              data-on={option.chosen}
              aria-pressed={option.chosen}
              onClick={() => take(option.lofts_deg.length)}
            >
              <span className={classes.count}>{COUNT_WORDS[option.lofts_deg.length]}</span>
              <strong>{option.lofts_deg.map((l) => `${trimmed(l)}°`).join("  ")}</strong>
              <span className={classes.gaps}>
                gaps {option.gaps_m.map((g) => plain(inDistance(metres(g), units.distance))).join(", ")}{" "}
                {units.distance}
              </span>
              <span className={classes.changes}>{option.changes.join("; ")}</span>
              <span className={classes.gives}>{option.gives_up}</span>
            </button>
          </li>
        ))}
      </ul>
      <p className={classes.compared}>
        Ladders are compared in still air at {plain(TABLES.ladder_air_c)}&nbsp;°C, by the model alone; full swings below
        are those of Carries.
      </p>
    </>
  );
}
