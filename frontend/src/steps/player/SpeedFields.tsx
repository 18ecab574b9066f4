import type { Player } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useUnits } from "../../app/context";
import {
  fromDistance,
  fromSpeed,
  inDistance,
  inSpeed,
  metres,
  metresPerSecond,
  SPEED_LABEL,
  showDistance,
} from "../../units/units";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";

/** Full pitching-wedge carry, or head speed if that is what is known. */
export function SpeedFields({ player, onChange }: { player: Player; onChange: (change: Partial<Player>) => void }) {
  const units = useUnits();
  const carry = player.pitching_wedge_carry_m;
  const speed = player.pitching_wedge_speed_mps;
  const note =
    carry !== null && speed !== null
      ? "the carry is used"
      : carry === null && speed === null
        ? `assumed: ${showDistance(metres(TABLES.assumed_carry_m), units.distance)}`
        : undefined;
  return (
    <div className={parts.fields}>
      <NumberField
        label="Full pitching-wedge carry"
        unit={units.distance}
        path="player.pitching_wedge_carry_m"
        optional
        width={190}
        note={note}
        value={carry === null ? null : inDistance(metres(carry), units.distance)}
        onChange={(v) => onChange({ pitching_wedge_carry_m: v === null ? null : fromDistance(v, units.distance) })}
      />
      <NumberField
        label="or its head speed"
        unit={SPEED_LABEL[units.speed]}
        path="player.pitching_wedge_speed_mps"
        optional
        width={150}
        value={speed === null ? null : inSpeed(metresPerSecond(speed), units.speed)}
        onChange={(v) => onChange({ pitching_wedge_speed_mps: v === null ? null : fromSpeed(v, units.speed) })}
      />
    </div>
  );
}
