import { describe, expect, it } from "vitest";
import { lowest, outlinePath, pitched } from "./outline";

const SQUARE = [
  [0, 0],
  [-20, -3],
  [-20, 30],
];

describe("outline", () => {
  it("leans the handle towards the target and keeps distances", () => {
    const turned = pitched([[0, 10]], 90)[0] ?? [];
    expect(turned[0]).toBeCloseTo(10);
    expect(turned[1]).toBeCloseTo(0);
    const [a = [], b = []] = pitched(SQUARE, 17);
    expect(Math.hypot((b[0] ?? 0) - (a[0] ?? 0), (b[1] ?? 0) - (a[1] ?? 0))).toBeCloseTo(Math.hypot(20, 3));
  });

  it("lowers the edge with lean: the trailing part rises", () => {
    expect(lowest(SQUARE)).toBe(-3);
    expect(lowest(pitched(SQUARE, 8))).toBeGreaterThan(-3);
  });

  it("closes the path", () => {
    expect(outlinePath(SQUARE)).toMatch(/^M0\.00 0\.00L-20\.00 -3\.00L.*Z$/);
  });
});
