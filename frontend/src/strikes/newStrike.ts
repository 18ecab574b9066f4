import { v4 as newId } from "uuid";
import type { Strike } from "../api/client";

/** A strike with nothing measured yet, typed here and now. */
export function newStrike(club: string, loft_deg: number, swing: string): Strike {
  return {
    id: newId(),
    club,
    loft_deg,
    swing,
    carry_m: null,
    club_speed_mps: null,
    ball_speed_mps: null,
    launch_deg: null,
    spin_rpm: null,
    apex_m: null,
    landing_deg: null,
    attack_deg: null,
    lean_deg: null,
    entry_mm: null,
    dynamic_loft_deg: null,
    impact_height_mm: null,
    exit_mm: null,
    mark_back_mm: null,
    mark_toe_mm: null,
    divot: null,
    note: "",
    set_aside: null,
    origin: "typed",
    simulated: false,
  };
}
