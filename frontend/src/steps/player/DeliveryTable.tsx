import type { Player } from "../../api/client";
import { NumberField } from "../parts/NumberField";
import { SourceMark } from "../parts/SourceMark";
import classes from "./Player.module.css";

type DeliveryDoc = Player["delivery"];
type Key = "attack_deg" | "lean_deg" | "entry_mm";

const ROWS: readonly { key: Key; name: string; unit: string; help: string }[] = [
  { key: "attack_deg", name: "Attack", unit: "°", help: "down is negative" },
  { key: "lean_deg", name: "Shaft lean", unit: "°", help: "handle ahead is positive" },
  { key: "entry_mm", name: "Entry", unit: "mm", help: "from the ball's centre, behind is negative" },
];

/** Attack, lean and entry of partial swings: mean, spread, count and source. */
export function DeliveryTable({ delivery, onChange }: { delivery: DeliveryDoc; onChange: (d: DeliveryDoc) => void }) {
  return (
    <div className={classes.delivery}>
      {ROWS.map(({ key, name, unit, help }) => {
        const estimate = delivery[key];
        const set = (change: Partial<typeof estimate>) => onChange({ ...delivery, [key]: { ...estimate, ...change } });
        // a figure typed over a measured one is a typed one, and those strikes do not tell it any more
        const type = (change: Partial<typeof estimate>) =>
          set({ source: "typed", count: estimate.source === "measured" ? null : estimate.count, ...change });
        const path = `player.delivery.${key}`;
        return (
          <div key={key} className={classes.cell} role="group" aria-label={name}>
            <div className={classes.cellHead}>
              <span>{name}</span>
              <SourceMark source={estimate.source} label={name} onChange={(source) => set({ source })} />
            </div>
            <div className={classes.row}>
              <NumberField
                label={`${name}, mean`}
                shown="mean"
                unit={unit}
                path={`${path}.mean`}
                value={estimate.mean}
                onChange={(mean) => mean !== null && type({ mean })}
              />
              <NumberField
                label={`${name}, spread`}
                shown="spread"
                unit={unit}
                path={`${path}.spread`}
                value={estimate.spread}
                onChange={(spread) => spread !== null && type({ spread })}
              />
              <NumberField
                label={`${name}, strikes`}
                shown="strikes"
                unit=""
                places={0}
                optional
                path={`${path}.count`}
                value={estimate.count}
                onChange={(count) => set({ count })}
              />
            </div>
            <span style={{ fontSize: 12, color: "var(--ink-2)" }}>{help}</span>
          </div>
        );
      })}
    </div>
  );
}
