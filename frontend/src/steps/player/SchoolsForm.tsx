import type { Player } from "../../api/client";
import { TABLES } from "../../api/tables";
import { Choice } from "../parts/Choice";
import parts from "../parts/parts.module.css";
import classes from "./Player.module.css";

interface Props {
  schools: Player["schools"];
  onChange: (schools: Player["schools"]) => void;
}

/** Where good fitters disagree: the fitter's choice, the habit unless something else is chosen. */
export function SchoolsForm({ schools, onChange }: Props) {
  const chosen: Record<string, string> = schools;
  return (
    <fieldset className={parts.group}>
      <legend>Schools</legend>
      <div className={classes.schools}>
        {TABLES.schools.map(({ key, name, usual, choices }) => (
          <Choice
            key={key}
            label={name}
            path={`player.schools.${key}`}
            value={chosen[key] ?? usual}
            options={choices.map((choice) => [choice.key, choice.name] as const)}
            onChange={(value) => onChange({ ...schools, [key]: value })}
          />
        ))}
      </div>
    </fieldset>
  );
}
