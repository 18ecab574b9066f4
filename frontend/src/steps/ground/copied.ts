import type { Ground } from "../../api/client";

/** A ground's figures in the place of another's: nobody measured them here. What was assumed there is assumed here. */
export function copied(ground: Ground): Ground {
  const { turf, sand } = ground;
  return {
    ...ground,
    turf: { ...turf, firmness_source: turf.firmness_source === "assumed" ? "assumed" : "copied" },
    sand: { ...sand, penetrometer_source: sand.penetrometer_source === "assumed" ? "assumed" : "copied" },
  };
}
