import { Button, TextInput } from "@mantine/core";
import { TABLES } from "../../api/tables";
import { useFault, useStore, useUnits } from "../../app/context";
import { useRemembered } from "../../app/useRemembered";
import { fromDistance, inDistance, metres } from "../../units/units";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import classes from "./Carries.module.css";

/** Swings of the fitter's own beside the clock swings, and the air in which balls are measured. */
export function OwnSwings() {
  const { draft, edit } = useStore();
  const units = useUnits();
  const [name, setName] = useRemembered("own-swing", "");
  const fault = useFault("measuring.swings");
  const { measuring } = draft;
  const set = (changes: Partial<typeof measuring>) => edit("measuring", { ...measuring, ...changes });
  const add = () => {
    if (name.trim() === "") return;
    const key = keyOf(name.trim(), measuring.swings);
    set({ swings: [...measuring.swings, { key, name: name.trim(), speed_share: 0.8, extra_lean_deg: 0 }] });
    setName("");
  };
  return (
    <section className={classes.own} aria-label="Swings and air">
      <div className={parts.fields}>
        <NumberField
          label="Temperature"
          unit="°C"
          width={110}
          path="measuring.temperature_c"
          value={measuring.temperature_c}
          onChange={(v) => v !== null && set({ temperature_c: v })}
        />
        <NumberField
          label="Altitude"
          unit={units.distance}
          width={110}
          path="measuring.altitude_m"
          value={inDistance(metres(measuring.altitude_m), units.distance)}
          onChange={(v) => v !== null && set({ altitude_m: fromDistance(v, units.distance) })}
        />
        {measuring.swings.map((swing, i) => (
          <div key={swing.key} className={classes.ownSwing}>
            <NumberField
              label={`${swing.name}, % of full speed`}
              unit="%"
              width={170}
              path={`measuring.swings.${i}.speed_share`}
              value={100 * swing.speed_share}
              onChange={(v) =>
                v !== null &&
                set({ swings: measuring.swings.map((s, j) => (j === i ? { ...s, speed_share: v / 100 } : s)) })
              }
            />
            <Button
              variant="default"
              size="xs"
              aria-label={`Remove the swing ${swing.name}`}
              onClick={() => set({ swings: measuring.swings.filter((_, j) => j !== i) })}
            >
              Remove
            </Button>
          </div>
        ))}
        {measuring.swings.length < TABLES.most.swings && (
          <div className={classes.ownSwing}>
            <TextInput
              label="Another swing"
              placeholder="hip high"
              value={name}
              maxLength={TABLES.most.swing_name}
              width={150}
              onChange={(event) => setName(event.currentTarget.value)}
              onKeyDown={(event) => event.key === "Enter" && add()}
              error={fault?.message}
            />
            <Button variant="default" size="xs" disabled={name.trim() === ""} onClick={add}>
              Add a swing
            </Button>
          </div>
        )}
      </div>
    </section>
  );
}

/**
 * A key from a name: small letters without accents, and figures; a name that has none, or begins like another's, gets a
 * number that is not taken.
 */
export function keyOf(name: string, swings: readonly { key: string; name: string }[]) {
  const key = name
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "_")
    .slice(0, 24)
    .replace(/^_+|_+$/g, "");
  const taken = swings.map((swing) => swing.key);
  // a name that is there already is refused by its key
  if (key !== "" && (!taken.includes(key) || swings.some((swing) => swing.name === name))) return key;
  const start = key === "" ? "own" : key.slice(0, 21);
  let number = 1;
  while (taken.includes(`${start}_${number}`)) number += 1;
  return `${start}_${number}`;
}
