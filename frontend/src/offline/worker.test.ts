import { expect, it } from "vitest";
import { isNewest } from "./worker";

it("the address of a page that was loaded past the worker is as it was before", () => {
  const before = window.location.href;
  window.history.replaceState({ key: "k" }, "", "/fittings/f/carries?view=measure&newest=#row");
  expect(isNewest()).toBe(true);
  expect([window.location.pathname, window.location.search, window.location.hash]).toEqual([
    "/fittings/f/carries",
    "?view=measure",
    "#row",
  ]);
  expect(window.history.state).toEqual({ key: "k" });
  expect(isNewest()).toBe(false);
  window.history.replaceState(null, "", before);
});
