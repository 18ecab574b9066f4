import { describe, expect, it } from "vitest";
import { between, faultOf } from "./limits";
import {
  counted,
  fromDistance,
  fromSpeed,
  inDistance,
  inSpeed,
  metres,
  metresPerSecond,
  parseNumber,
  plain,
  trimmed,
} from "./units";

describe("units", () => {
  it("converts exactly and back", () => {
    expect(inDistance(metres(91.44), "yd")).toBeCloseTo(100, 12);
    expect(inSpeed(metresPerSecond(44.704), "mph")).toBeCloseTo(100, 12);
    for (const value of [0, 1, 73.3, 170]) {
      expect(inDistance(fromDistance(value, "yd"), "yd")).toBeCloseTo(value, 12);
      expect(inSpeed(fromSpeed(value, "mph"), "mph")).toBeCloseTo(value, 12);
      expect(inDistance(metres(value), "m")).toBe(value);
    }
  });

  it("reads what people type and nothing else", () => {
    expect(["5,5", " −7 ", "+3", ".5", "12.", "–2"].map(parseNumber)).toEqual([5.5, -7, 3, 0.5, 12, -2]);
    expect(["", "six", "1e3", "1,2,3", "0x10", "NaN", "--2", "-"].map(parseNumber)).toEqual(Array(8).fill(null));
  });

  it("writes a true minus, no lonely minus zero, and no decimals that say nothing", () => {
    expect(plain(-3.25, 1)).toBe("−3.3");
    expect(plain(-0.04, 1)).toBe("0.0");
    expect(trimmed(56)).toBe("56");
    expect(trimmed(55.5)).toBe("55.5");
    expect(trimmed(-6.04)).toBe("−6");
    expect(trimmed(106.25, 2)).toBe("106.25");
    expect(trimmed(12.5, 3)).toBe("12.5");
    expect(trimmed(-0.04, 1)).toBe("0");
    expect(trimmed(0.999, 2)).toBe("1");
  });

  it("takes every limit that it tells, in any unit, and tells one for what is beyond", () => {
    const carry = { unit: "m", low: 1, high: 200 };
    const speed = { unit: "m/s", low: 3, high: 55 };
    const readers = [
      { distance: "m", speed: "mps" },
      { distance: "yd", speed: "mph" },
    ] as const;
    for (const reader of readers)
      for (const figure of [carry, speed]) {
        const told = faultOf("9999", figure, reader) ?? "";
        const limits = told.replace(/\u00a0.*/, "").split(" to ");
        expect(limits.map((limit) => faultOf(limit, figure, reader))).toEqual([null, null]);
      }
    expect(faultOf("0", carry, readers[1])).toBe("1.1 to 218.7\u00a0yd");
    expect(faultOf(" ", carry, readers[1])).toBeNull();
    expect(faultOf("far", carry, readers[1])).toBe("must be a number");
    expect(between(-250, 120)).toBe("−250 to 120");
    expect(between(100 * 0.07, 0.125)).toBe("7 to 0.12");
  });

  it("counts one of a thing and several of it", () => {
    expect([0, 1, 2, 12_300].map((n) => counted(n, "strike"))).toEqual([
      "0 strikes",
      "1 strike",
      "2 strikes",
      "12,300 strikes",
    ]);
    expect([1, 3].map((n) => counted(n, "thing is", "things are"))).toEqual(["1 thing is", "3 things are"]);
  });
});
