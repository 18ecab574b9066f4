/** Two numbers: x along the ground, z up, in mm. */
export type Point = readonly number[];

/** An SVG path through the points of a closed outline, in the outline's own millimetres (z up). */
export function outlinePath(outline: readonly Point[]): string {
  return `${outline.map(([x = 0, z = 0], i) => `${i === 0 ? "M" : "L"}${x.toFixed(2)} ${z.toFixed(2)}`).join("")}Z`;
}

/** The outline pitched forward by `lean` degrees about the leading edge (handle towards the target). */
export function pitched(outline: readonly Point[], leanDeg: number): Point[] {
  const a = (leanDeg * Math.PI) / 180;
  return outline.map(([x = 0, z = 0]) => [x * Math.cos(a) + z * Math.sin(a), -x * Math.sin(a) + z * Math.cos(a)]);
}

/** Lowest height of an outline. */
export const lowest = (outline: readonly Point[]) => Math.min(...outline.map(([, z = 0]) => z));
