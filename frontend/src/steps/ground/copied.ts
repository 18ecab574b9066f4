import type { Ground } from "../../api/client";
import { TABLES } from "../../api/tables";

/** A ground's figures in the place of another's: nobody measured them here. What was assumed there is assumed here. */
export function copied(ground: Ground): Ground {
  const whole = ground as unknown as Record<string, Record<string, unknown>>;
  const surfaces = TABLES.grounds.map(({ key, source }) => {
    const there = whole[key] ?? {};
    return [key, { ...there, [source]: there[source] === "assumed" ? "assumed" : "copied" }];
  });
  return { ...ground, ...Object.fromEntries(surfaces), formerly: [] };
}
