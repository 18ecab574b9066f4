import { expect, it } from "vitest";
import { keysAfter } from "./useKeys";

it.each([
  ["nothing changed", "abc", "abc", [0, 1, 2]],
  ["the first is gone", "abc", "bc", [1, 2]],
  ["the last is gone", "abc", "ab", [0, 1]],
  ["one is edited", "abc", "axc", [0, 1, 2]],
  ["one came at the end", "abc", "abcd", [0, 1, 2, 9]],
  ["one came back in the middle", "ac", "abc", [0, 9, 1]],
  ["one is edited and another gone", "abc", "xc", [0, 2]],
  ["of two alike one is gone", "aab", "ab", [0, 2]],
  ["all are gone", "abc", "", []],
  ["the first ones came", "", "ab", [9, 10]],
])("%s: the others keep their keys", (_, before, after, keys) => {
  const old = [...before].map((__, n) => n);
  expect(keysAfter([...before], old, [...after], 9)).toEqual(keys);
});
