import type { Strike, Units } from "../../api/client";
import { metres, metresPerSecond, plain, showDistance, showSpeed } from "../../units/units";

/** The figure of a strike that is named first. */
export function headline(strike: Strike, units: Units): string {
  if (strike.entry_mm !== null)
    return `${plain(Math.abs(strike.entry_mm))}\u00a0mm ${strike.entry_mm < 0 ? "behind" : "ahead"}`;
  if (strike.attack_deg !== null) return `${plain(strike.attack_deg, 1)}°`;
  if (strike.carry_m !== null) return showDistance(metres(strike.carry_m), units.distance, 1);
  return strike.divot ?? "strike";
}

/** The other figures of a strike. */
export function told(strike: Strike, units: Units): string {
  const found = [
    strike.attack_deg !== null ? `attack ${plain(strike.attack_deg, 1)}°` : "",
    strike.lean_deg !== null ? `lean ${plain(strike.lean_deg, 1)}°` : "",
    strike.club_speed_mps !== null ? showSpeed(metresPerSecond(strike.club_speed_mps), units.speed) : "",
    strike.carry_m !== null ? `carry ${showDistance(metres(strike.carry_m), units.distance, 1)}` : "",
    strike.exit_mm !== null && strike.entry_mm !== null
      ? `sand mark ${plain(strike.exit_mm - strike.entry_mm)}\u00a0mm`
      : "",
    strike.mark_back_mm !== null ? `sole marked ${plain(strike.mark_back_mm)}\u00a0mm back` : "",
    strike.divot !== null ? `divot ${strike.divot}` : "",
    strike.note,
  ].filter(Boolean);
  return found.join(", ") || strike.origin;
}
