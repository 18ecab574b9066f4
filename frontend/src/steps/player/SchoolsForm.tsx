import type { Player } from "../../api/client";
import { Choice } from "../parts/Choice";
import parts from "../parts/parts.module.css";
import classes from "./Player.module.css";

type SchoolsDoc = Player["schools"];
type Options<K extends keyof SchoolsDoc> = readonly (readonly [SchoolsDoc[K], string])[];

const QUESTIONS: { [K in keyof SchoolsDoc]: { ask: string; options: Options<K> } } = {
  clubs: {
    ask: "Clubs",
    options: [
      ["club_per_shot", "a club per shot"],
      ["favourite", "one favourite"],
    ],
  },
  gaps: {
    ask: "Gaps",
    options: [
      ["equal_carry", "equal carries"],
      ["equal_loft", "equal lofts"],
      ["clock_cover", "clock swings"],
    ],
  },
  tight_firm: {
    ask: "Tight lie, firm ground",
    options: [
      ["measured", "as measured"],
      ["use_sole", "use the sole"],
      ["use_edge", "use the edge"],
    ],
  },
  tight_soft: {
    ask: "Tight lie, soft ground",
    options: [
      ["measured", "as measured"],
      ["brush", "brush it"],
      ["same_swing", "same swing"],
    ],
  },
  sand_opening: {
    ask: "Sand: opening",
    options: [
      ["measured", "as measured"],
      ["always_open", "always open"],
      ["square", "square"],
    ],
  },
  sand_club: {
    ask: "Sand: club",
    options: [
      ["measured", "whichever serves"],
      ["most_loft", "most loft"],
      ["most_bounce", "most bounce"],
    ],
  },
  long_sand: {
    ask: "Long sand",
    options: [
      ["measured", "as measured"],
      ["blast", "shallow blast"],
      ["clip", "ball first"],
    ],
  },
  hands: {
    ask: "Hands",
    options: [
      ["measured", "as measured"],
      ["quiet", "quiet"],
      ["free", "free release"],
    ],
  },
  arc: {
    ask: "Arc",
    options: [
      ["measured", "as measured"],
      ["wide", "wide"],
      ["early_set", "early set"],
    ],
  },
};

/** Where good fitters disagree: the fitter's choice, the habit unless something else is chosen. */
export function SchoolsForm({ schools, onChange }: { schools: SchoolsDoc; onChange: (s: SchoolsDoc) => void }) {
  return (
    <fieldset className={parts.group}>
      <legend>Schools</legend>
      <div className={classes.schools}>
        {(Object.keys(QUESTIONS) as (keyof SchoolsDoc)[]).map((key) => (
          <Choice
            key={key}
            label={QUESTIONS[key].ask}
            path={`player.schools.${key}`}
            value={schools[key] as string}
            options={QUESTIONS[key].options as readonly (readonly [string, string])[]}
            onChange={(value) => onChange({ ...schools, [key]: value })}
          />
        ))}
      </div>
    </fieldset>
  );
}
