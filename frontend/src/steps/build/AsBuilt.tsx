import type { Build } from "../../api/client";
import { Instrument, meanOf } from "../../devices/Instrument";
import { plain, trimmed } from "../../units/units";
import parts from "../parts/parts.module.css";
import classes from "./Build.module.css";
import { limit, Reading, SwingWeight } from "./fields";

type Club = Build["clubs"][number];
type Wish = Club["wish"];

const READ: Record<Club["as_built"][number]["key"], string> = {
  loft_deg: "Loft °:",
  lie_deg: "Lie °:",
  swing_weight_points: "Swing weight, points:",
};

const hundredth = (value: number | undefined) => (value === undefined ? null : Math.round(100 * value) / 100);

interface Props {
  place: number;
  club: Club;
  wish: Wish;
  sheet: Build;
  onChange: (changes: Partial<Wish>) => void;
}

/** The club as it was read once it was built, typed or with the gauge, and how far off the sheet that is. */
export function AsBuilt({ place, club, wish, sheet, onChange }: Props) {
  return (
    <>
      <div className={parts.fields} role="group" aria-label={`${club.name} as built`}>
        <Reading
          label="Read: loft"
          unit="°"
          value={wish.read.loft_deg ?? null}
          bound={limit("loft_deg")}
          onChange={(loft_deg) => onChange({ read: { ...wish.read, loft_deg, typed: true } })}
        />
        <Reading
          label="Read: lie"
          unit="°"
          value={wish.read.lie_deg ?? null}
          bound={limit("lie_deg")}
          onChange={(lie_deg) => onChange({ read: { ...wish.read, lie_deg, typed: true } })}
        />
        {club.built && (
          <SwingWeight
            label="Read: swing weight"
            empty="not read"
            value={wish.read.swing_weight ?? null}
            onChange={(swing_weight) => onChange({ read: { ...wish.read, swing_weight } })}
          />
        )}
      </div>
      {sheet.own && (
        <Instrument
          kind="gauge"
          target={`built:${place}`}
          name={`the built ${club.name}`}
          told={(figures) => `${plain(figures.loft_deg ?? 0, 1)}° · lie ${plain(figures.lie_deg ?? 0, 1)}°`}
          says={(summary) =>
            `${trimmed(meanOf(summary, "loft_deg") ?? 0, 2)}° loft, lie ${trimmed(meanOf(summary, "lie_deg") ?? 0, 2)}°`
          }
          used={(summary) =>
            !wish.read.typed &&
            wish.read.loft_deg === hundredth(meanOf(summary, "loft_deg")) &&
            wish.read.lie_deg === hundredth(meanOf(summary, "lie_deg"))
          }
          onUse={(summary) =>
            onChange({
              read: {
                ...wish.read,
                loft_deg: hundredth(meanOf(summary, "loft_deg")),
                lie_deg: hundredth(meanOf(summary, "lie_deg")),
                typed: false,
              },
            })
          }
        />
      )}
      {club.as_built.map((one) => (
        <p key={one.key} className={classes.note} data-off={one.over > 0}>
          {READ[one.key]} {trimmed(one.read - one.wanted, 2)} off the sheet
          {one.over > 0 ? `, ${trimmed(one.over, 2)} outside its tolerance` : ", within its tolerance"}
        </p>
      ))}
    </>
  );
}
