import { Button } from "@mantine/core";
import { TABLES } from "../../api/tables";
import { useFault } from "../../app/context";
import { plain } from "../../units/units";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import classes from "./Player.module.css";

type Mix = Record<string, number>;

interface Props {
  mix: Mix | null;
  usual: Mix;
  onChange: (mix: Mix | null) => void;
}

/** The shots this player faces, in percent; the usual mix for the handicap until it is edited. */
export function ShotMix({ mix, usual, onChange }: Props) {
  const fault = useFault("player.shot_mix");
  const shown = mix ?? usual;
  const total = Object.values(shown).reduce((a, b) => a + b, 0);
  const widest = Math.max(...Object.values(shown), 0.01);
  const set = (key: string, percent: number | null) => onChange({ ...shown, [key]: (percent ?? 0) / 100 });
  const scale = () => onChange(Object.fromEntries(Object.entries(shown).map(([k, v]) => [k, v / total])));
  return (
    <fieldset className={parts.group}>
      <legend>
        Shots they face {mix === null && <span className={parts.unit}>· usual for the handicap, assumed</span>}
      </legend>
      <div className={classes.mix}>
        {TABLES.shots.map((shot) => (
          <div key={shot.key} className={classes.mixRow}>
            <span>{shot.name}</span>
            <span
              className={classes.mixBar}
              style={{ width: `${(100 * (shown[shot.key] ?? 0)) / widest}%` }}
              aria-hidden
            />
            <NumberField
              label={`Share of ${shot.name}`}
              hideLabel
              unit="%"
              path={`player.shot_mix.${shot.key}`}
              value={100 * (shown[shot.key] ?? 0)}
              onChange={(percent) => set(shot.key, percent)}
            />
          </div>
        ))}
      </div>
      {fault && (
        <p role="alert" className={parts.error}>
          {fault.message}
        </p>
      )}
      <div className={classes.mixFoot}>
        <span className={classes.total} data-off={Math.abs(total - 1) > TABLES.share_tolerance}>
          sum {plain(100 * total, 1)}&nbsp;%
        </span>
        <Button variant="default" size="xs" onClick={scale} disabled={total <= 0 || Math.abs(total - 1) < 1e-6}>
          Scale to 100 %
        </Button>
        <Button variant="default" size="xs" onClick={() => onChange(null)} disabled={mix === null}>
          Usual mix
        </Button>
      </div>
    </fieldset>
  );
}
