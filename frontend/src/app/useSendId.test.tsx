import { renderHook } from "@testing-library/react";
import { expect, it } from "vitest";
import { useSendId } from "./useSendId";

it("what is sent again goes under the same id, what is told otherwise or after it arrived under another", () => {
  const { result, rerender } = renderHook(() => useSendId());
  const first = result.current.of({ distance: "m", revision: 3 });
  rerender();
  expect(result.current.of({ distance: "m", revision: 3 })).toBe(first);
  const second = result.current.of({ distance: "yd", revision: 3 });
  expect(second).not.toBe(first);
  expect(result.current.of({ distance: "yd", revision: 3 })).toBe(second);
  result.current.arrived();
  expect(result.current.of({ distance: "yd", revision: 3 })).not.toBe(second);
});
