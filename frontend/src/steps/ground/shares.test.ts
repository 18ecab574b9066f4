import { expect, it } from "vitest";
import { scaled, withAnother, without } from "./shares";

const shares = (all: readonly { share: number }[]) => all.map(({ share }) => Number(share.toFixed(6)));
const of = (...all: number[]) => all.map((share) => ({ share }));

it("shares sum to 1 whatever comes and goes, in the proportion that they had", () => {
  expect(shares(scaled(of(0.2, 0.6)))).toEqual([0.25, 0.75]);
  expect(shares(scaled(of(0, 0)))).toEqual([0.5, 0.5]);
  expect(shares(withAnother(of(0.5, 0.5), { share: 0.9 }))).toEqual([0.333333, 0.333333, 0.333333]);
  expect(shares(without(of(0.6, 0.1, 0.3), 0))).toEqual([0.25, 0.75]);
  expect(shares(without(of(1, 0, 0), 0))).toEqual([0.5, 0.5]);
});
