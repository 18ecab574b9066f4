import { Button, TextInput } from "@mantine/core";
import type { Ground } from "../../api/client";
import { useFault, useUnits } from "../../app/context";
import { useCatalogue } from "../../app/useCatalogue";
import { Instrument, meanOf } from "../../devices/Instrument";
import { fromDistance, inDistance, metres, plain } from "../../units/units";
import { Choice } from "../parts/Choice";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import { SourceMark } from "../parts/SourceMark";
import classes from "./Ground.module.css";
import { ReadingsField } from "./ReadingsField";

interface Props {
  ground: Ground;
  path: string;
  onChange: (ground: Ground) => void;
  onRemove?: () => void;
  /** What the readings say, from the server. */
  says: { turf: string; sand: string } | undefined;
}

const TURF_LIMITS: readonly (readonly [number, string])[] = [
  [65, "soft"],
  [105, "medium"],
  [145, "firm"],
];
const SAND_LIMITS: readonly (readonly [number, string])[] = [
  [1.8, "loose"],
  [2.2, "medium"],
  [2.4, "firm"],
];

const MOST_READINGS = 30;

/** The newest readings of an instrument, as many as a ground holds. */
const values = (readings: readonly { figures: Record<string, number> }[], key: string) =>
  readings.slice(-MOST_READINGS).map((reading) => reading.figures[key] ?? 0);

const same = (a: readonly number[], b: readonly number[]) => a.length === b.length && a.every((v, i) => v === b[i]);

/** Readings where there are some, classes where there are none. */
export function GroundForm({ ground, path, onChange, onRemove, says }: Props) {
  const units = useUnits();
  const nameFault = useFault(`${path}.name`);
  const catalogue = useCatalogue();
  const { turf, sand } = ground;
  const setTurf = (change: Partial<Ground["turf"]>) => onChange({ ...ground, turf: { ...turf, ...change } });
  const setSand = (change: Partial<Ground["sand"]>) => onChange({ ...ground, sand: { ...sand, ...change } });
  const turfClass = turf.firmness_g < 65 ? "soft" : (TURF_LIMITS.find(([g]) => turf.firmness_g <= g)?.[1] ?? "baked");
  const sandClass =
    sand.penetrometer_kg_cm2 < 1.8
      ? "loose"
      : (SAND_LIMITS.slice(1).find(([p]) => sand.penetrometer_kg_cm2 <= p)?.[1] ?? "packed");
  const pickTurf = (name: string) => {
    const firmness_g = catalogue.data?.turf_class_g[name];
    if (firmness_g !== undefined) setTurf({ firmness_g, firmness_source: "assumed", readings_g: [] });
  };
  const pickSand = (name: string) => {
    const penetrometer_kg_cm2 = catalogue.data?.sand_class_kg_cm2[name];
    if (penetrometer_kg_cm2 !== undefined)
      setSand({ penetrometer_kg_cm2, penetrometer_source: "assumed", readings_kg_cm2: [] });
  };
  return (
    <div className={`${parts.form} ${classes.form}`}>
      <fieldset className={parts.group}>
        <legend>{ground.name}</legend>
        <div className={parts.fields}>
          <TextInput
            label="Name"
            value={ground.name}
            maxLength={120}
            error={nameFault?.message}
            onChange={(e) => onChange({ ...ground, name: e.currentTarget.value })}
          />
          <NumberField
            label="Share of their golf"
            unit="%"
            width={130}
            places={0}
            path={`${path}.share`}
            value={100 * ground.share}
            onChange={(v) => v !== null && onChange({ ...ground, share: v / 100 })}
          />
          <Choice
            label="Greens"
            value={ground.green}
            options={[
              ["soft", "soft"],
              ["medium", "medium"],
              ["firm", "firm"],
            ]}
            onChange={(green) => onChange({ ...ground, green })}
          />
          <NumberField
            label="Bunker lip"
            unit="m"
            width={100}
            path={`${path}.lip_height_m`}
            value={ground.lip_height_m}
            onChange={(v) => v !== null && onChange({ ...ground, lip_height_m: v })}
          />
          <NumberField
            label="Lip distance"
            unit={units.distance}
            width={110}
            path={`${path}.lip_distance_m`}
            value={inDistance(metres(ground.lip_distance_m), units.distance)}
            onChange={(v) => v !== null && onChange({ ...ground, lip_distance_m: fromDistance(v, units.distance) })}
          />
        </div>
        {onRemove && (
          <Button mt={12} variant="subtle" size="xs" color="rust" onClick={onRemove}>
            Remove this ground
          </Button>
        )}
      </fieldset>
      <fieldset className={parts.group}>
        <legend>
          Turf{" "}
          <SourceMark
            source={turf.firmness_source}
            label="Turf firmness"
            onChange={(s) => setTurf({ firmness_source: s })}
          />
        </legend>
        <div className={parts.fields}>
          <Choice
            label="Class"
            value={turfClass}
            options={[
              ["soft", "soft"],
              ["medium", "medium"],
              ["firm", "firm"],
              ["baked", "baked"],
            ]}
            onChange={pickTurf}
          />
          <NumberField
            label="Drop hammer"
            unit="g"
            width={110}
            places={0}
            path={`${path}.turf.firmness_g`}
            value={turf.firmness_g}
            onChange={(v) => v !== null && setTurf({ firmness_g: v, firmness_source: "typed", readings_g: [] })}
          />
          <ReadingsField
            label="Drops, g"
            path={`${path}.turf.readings_g`}
            values={turf.readings_g}
            says={says?.turf ?? ""}
            places={0}
            onChange={(readings_g) => setTurf({ readings_g, firmness_source: "measured" })}
          />
          <Choice
            label="Lie"
            value={turf.lie}
            options={[
              ["bare", "bare"],
              ["tight", "tight"],
              ["fairway", "fairway"],
              ["lush", "lush"],
              ["sitting_up", "sitting up"],
            ]}
            onChange={(lie) => setTurf({ lie })}
          />
          <NumberField
            label="Moisture"
            unit="%"
            width={100}
            places={0}
            path={`${path}.turf.moisture`}
            value={100 * turf.moisture}
            onChange={(v) => v !== null && setTurf({ moisture: v / 100 })}
          />
          <NumberField
            label="Root density (1 is usual)"
            unit=""
            width={150}
            path={`${path}.turf.root_density`}
            value={turf.root_density}
            onChange={(v) => v !== null && setTurf({ root_density: v })}
          />
        </div>
        <Instrument
          kind="hammer"
          target={ground.name}
          name={ground.name}
          told={(f) => `${plain(f.peak_g ?? 0)} g`}
          says={(s) => `${plain(meanOf(s, "peak_g") ?? 0)} ± ${plain(s.figures[0]?.spread ?? 0)} g: ${s.words}`}
          used={(_, readings) =>
            turf.firmness_source === "measured" && same(turf.readings_g, values(readings, "peak_g"))
          }
          onUse={(_, readings) => setTurf({ readings_g: values(readings, "peak_g"), firmness_source: "measured" })}
        />
      </fieldset>
      <fieldset className={parts.group}>
        <legend>
          Sand{" "}
          <SourceMark
            source={sand.penetrometer_source}
            label="Sand reading"
            onChange={(s) => setSand({ penetrometer_source: s })}
          />
        </legend>
        <div className={parts.fields}>
          <Choice
            label="Class"
            value={sandClass}
            options={[
              ["loose", "plugs easily"],
              ["medium", "moderate"],
              ["firm", "little"],
              ["packed", "hardly ever"],
            ]}
            onChange={pickSand}
          />
          <NumberField
            label="Penetrometer"
            unit="kg/cm²"
            width={130}
            places={2}
            path={`${path}.sand.penetrometer_kg_cm2`}
            value={sand.penetrometer_kg_cm2}
            onChange={(v) =>
              v !== null && setSand({ penetrometer_kg_cm2: v, penetrometer_source: "typed", readings_kg_cm2: [] })
            }
          />
          <ReadingsField
            label="Pushes, kg/cm²"
            path={`${path}.sand.readings_kg_cm2`}
            values={sand.readings_kg_cm2}
            says={says?.sand ?? ""}
            places={2}
            onChange={(readings_kg_cm2) => setSand({ readings_kg_cm2, penetrometer_source: "measured" })}
          />
          <NumberField
            label="Loose depth"
            unit="mm"
            width={110}
            places={0}
            path={`${path}.sand.loose_depth_mm`}
            value={sand.loose_depth_mm}
            onChange={(v) => v !== null && setSand({ loose_depth_mm: v })}
          />
          <NumberField
            label="Moisture"
            unit="%"
            width={100}
            places={0}
            path={`${path}.sand.moisture`}
            value={100 * sand.moisture}
            onChange={(v) => v !== null && setSand({ moisture: v / 100 })}
          />
        </div>
        <Instrument
          kind="penetrometer"
          target={ground.name}
          name={ground.name}
          told={(f) => `${plain(f.pressure_kg_cm2 ?? 0, 2)} kg/cm²`}
          says={(s) =>
            `${plain(meanOf(s, "pressure_kg_cm2") ?? 0, 2)} ± ${plain(s.figures[0]?.spread ?? 0, 2)} kg/cm²: ${s.words}`
          }
          used={(_, readings) =>
            sand.penetrometer_source === "measured" && same(sand.readings_kg_cm2, values(readings, "pressure_kg_cm2"))
          }
          onUse={(_, readings) =>
            setSand({ readings_kg_cm2: values(readings, "pressure_kg_cm2"), penetrometer_source: "measured" })
          }
        />
      </fieldset>
    </div>
  );
}
