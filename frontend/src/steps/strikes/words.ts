import type { Strike } from "../../api/client";
import { plain } from "../../units/units";

/** The figure of a strike that is named first. */
export function headline(strike: Strike): string {
  if (strike.entry_mm !== null)
    return `${plain(Math.abs(strike.entry_mm))} mm ${strike.entry_mm < 0 ? "behind" : "ahead"}`;
  if (strike.attack_deg !== null) return `${plain(strike.attack_deg, 1)}°`;
  if (strike.carry_m !== null) return `${plain(strike.carry_m, 1)} m`;
  return strike.divot ?? "strike";
}

/** The other figures of a strike. */
export function told(strike: Strike): string {
  const found = [
    strike.attack_deg !== null ? `attack ${plain(strike.attack_deg, 1)}°` : "",
    strike.lean_deg !== null ? `lean ${plain(strike.lean_deg, 1)}°` : "",
    strike.club_speed_mps !== null ? `${plain(strike.club_speed_mps, 1)} m/s` : "",
    strike.carry_m !== null ? `carry ${plain(strike.carry_m, 1)} m` : "",
    strike.exit_mm !== null && strike.entry_mm !== null
      ? `sand mark ${plain(strike.exit_mm - strike.entry_mm)} mm`
      : "",
    strike.mark_back_mm !== null ? `sole marked ${plain(strike.mark_back_mm)} mm back` : "",
    strike.divot !== null ? `divot ${strike.divot}` : "",
    strike.note,
  ].filter(Boolean);
  return found.join(", ") || strike.origin;
}
