import { Button } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import type { OwnedWedge } from "../../api/client";
import { questionOf, TABLES } from "../../api/tables";
import { useFault } from "../../app/context";
import { RememberedUnder, useRememberedOf } from "../../app/useRemembered";
import { Instrument, meanOf, type ReadSummary } from "../../devices/Instrument";
import { plain } from "../../units/units";
import { Below } from "../parts/Below";
import { Choice } from "../parts/Choice";
import { FigureField } from "../parts/FigureField";
import { Lines } from "../parts/Lines";
import { NameField } from "../parts/NameField";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import { Photos } from "./Photos";

interface Props {
  wedge: OwnedWedge;
  /** The wedge's code: own:N. */
  target: string;
  path: string;
  onChange: (wedge: OwnedWedge) => void;
  /** Something became known of this wedge, wherever it stands by then and whatever else of it was changed. */
  onKnown: (change: (wedge: OwnedWedge) => OwnedWedge) => void;
  onRemove: () => void;
  /** It was just added: what is known of it is typed next. */
  fresh?: boolean;
}

const TYPED = TABLES.head.filter((figure) => figure.where !== "none");

/** Figures that the gauge gives, and how near a tenth they must be to be called the same. */
const GAUGED = ["loft_deg", "lie_deg", "bounce_deg", "sole_width_mm"] as const;
const tenth = (value: number) => Math.round(10 * value) / 10;
const closeTo = (value: number, mean: number | undefined) => mean === undefined || Math.abs(value - mean) < 0.06;

/** What the gauge says, beside the stamp. */
function gaugeWords(summary: ReadSummary, wedge: OwnedWedge) {
  const loft = meanOf(summary, "loft_deg") ?? 0;
  const edge = meanOf(summary, "edge_height_mm");
  const stamped = wedge.stamped_loft_deg;
  const drift = stamped === null ? 0 : loft - stamped;
  const off =
    stamped === null
      ? ""
      : Math.abs(drift) < TABLES.drift_matters_deg
        ? ", as stamped"
        : `, ${plain(Math.abs(drift), 1)}° ${drift < 0 ? "stronger" : "weaker"} than stamped`;
  return `${plain(loft, 1)}° loft${off}, ${plain(meanOf(summary, "bounce_deg") ?? 0, 1)}° bounce, lie ${plain(
    meanOf(summary, "lie_deg") ?? 0,
    1,
  )}°${edge === undefined ? "" : `, edge ${plain(edge, 1)}\u00a0mm off the floor`}`;
}

/** One owned wedge, as stamped and as the gauge reads it. */
export function OwnedForm({ wedge, target, path, onChange, onKnown, onRemove, fresh }: Props) {
  const nameFault = useFault(`${path}.name`);
  const name = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (fresh) name.current?.focus();
  }, [fresh]);
  const [more, setMore] = useState(false);
  const remembered = useRememberedOf(wedge.name);
  const sole = wedge as unknown as Record<string, number>;
  const set = (change: Partial<OwnedWedge>) => onChange({ ...wedge, ...change });
  return (
    <RememberedUnder value={remembered}>
      <fieldset className={parts.group}>
        <legend>{wedge.name || "Wedge"}</legend>
        <div className={parts.fields}>
          <NameField
            label="Name"
            ref={name}
            value={wedge.name}
            error={nameFault?.message}
            onChange={(name) => set({ name })}
          />
          <NumberField
            label="Stamped loft"
            unit="°"
            width={110}
            optional
            path={`${path}.stamped_loft_deg`}
            value={wedge.stamped_loft_deg}
            onChange={(stamped_loft_deg) => set({ stamped_loft_deg })}
          />
          <NumberField
            label="Measured loft"
            unit="°"
            width={110}
            path={`${path}.loft_deg`}
            value={wedge.loft_deg}
            onChange={(v) => v !== null && set({ loft_deg: v, measured: true, loft_typed: true })}
          />
          {TYPED.filter((figure) => more || figure.where === "first").map((figure) => (
            <FigureField
              key={figure.key}
              figure={figure}
              path={`${path}.${figure.key}`}
              value={sole[figure.key] ?? figure.usual ?? 0}
              onChange={(v) => set({ [figure.key]: v })}
            />
          ))}
          <Choice
            label="Head"
            value={wedge.make}
            options={[
              ["forged", "forged"],
              ["cast", "cast"],
            ]}
            onChange={(make) =>
              set({ make, bend_limit_deg: Math.min(wedge.bend_limit_deg, TABLES.bend_limit_deg[make] ?? 0) })
            }
          />
          <NumberField
            label="May be bent by"
            unit="°"
            width={120}
            path={`${path}.bend_limit_deg`}
            value={wedge.bend_limit_deg}
            onChange={(v) => v !== null && set({ bend_limit_deg: v })}
            note="the maker's limit decides"
          />
          <button type="button" className={parts.quietButton} aria-expanded={more} onClick={() => setMore(!more)}>
            {more ? "Fewer figures" : "More of the sole"}
          </button>
        </div>
        <Instrument
          kind="gauge"
          target={target}
          name={wedge.name || "this wedge"}
          told={(f) =>
            `${plain(f.loft_deg ?? 0, 1)}° · ${plain(f.bounce_deg ?? 0, 1)}° · lie ${plain(f.lie_deg ?? 0, 1)}°`
          }
          says={(summary) => gaugeWords(summary, wedge)}
          used={(summary) =>
            wedge.measured && !wedge.loft_typed && GAUGED.every((key) => closeTo(wedge[key], meanOf(summary, key)))
          }
          onUse={(summary) =>
            set({
              ...Object.fromEntries(
                GAUGED.flatMap((key) => {
                  const mean = meanOf(summary, key);
                  return mean === undefined ? [] : [[key, tenth(mean)]];
                }),
              ),
              measured: true,
              loft_typed: false,
            })
          }
        />
        <Below>
          <div className={parts.fields} style={{ marginTop: 10 }}>
            <Choice
              {...questionOf<typeof wedge.wear_class>("wear_class")}
              value={wedge.wear_class}
              onChange={(wear_class) => set({ wear_class })}
            />
            <Lines
              label="Where, and how"
              style={{ flex: 1, minWidth: 240 }}
              least={1}
              value={wedge.wear}
              onChange={(wear) => set({ wear })}
            />
          </div>
          <Photos
            name={wedge.name}
            photos={wedge.photos}
            onChange={(change) => onKnown((now) => ({ ...now, photos: change(now.photos) }))}
          />
          <Button mt={10} variant="subtle" size="xs" color="rust" onClick={onRemove}>
            Remove this wedge
          </Button>
        </Below>
      </fieldset>
    </RememberedUnder>
  );
}
