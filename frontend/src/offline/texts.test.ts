import "fake-indexeddb/auto";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { keepHistory, keptHistory, NOTHING } from "../history/acts";
import { keepAct, waitingActs } from "../strikes/actStore";
import { local, tab } from "./texts";

beforeEach(() => {
  localStorage.clear();
  sessionStorage.clear();
});
afterEach(() => vi.restoreAllMocks());

const deny = (method: "getItem" | "setItem" | "removeItem") =>
  vi.spyOn(Storage.prototype, method).mockImplementation(() => {
    throw new DOMException("denied", "SecurityError");
  });

it("keeps, reads and drops by name, each room for itself", () => {
  expect(local.keep("a-1", "x")).toBe(true);
  expect(tab.keep("a-1", "y")).toBe(true);
  expect([local.read("a-1"), tab.read("a-1"), local.read("b")]).toEqual(["x", "y", null]);
  local.keep("b-1", "z");
  expect(local.names("a-")).toEqual(["a-1"]);
  local.drop("a-1");
  expect([local.read("a-1"), tab.read("a-1")]).toEqual([null, "y"]);
});

it("a browser that keeps nothing stops nobody, and says so of what is to be kept", () => {
  for (const method of ["getItem", "setItem", "removeItem"] as const) deny(method);
  expect([local.keep("a", "x"), local.read("a"), tab.keep("a", "x")]).toEqual([false, null, false]);
  expect(() => local.drop("a")).not.toThrow();
});

it("what was done on a page goes with its tab: a studio's browser does not fill up with it", () => {
  const history = { past: [{ kind: "strike" as const, id: "a", out: false }], future: [] };
  keepHistory("deeds", history);
  expect(localStorage.length).toBe(0);
  expect(keptHistory("deeds")).toEqual(history);
  keepHistory("deeds", NOTHING);
  expect(sessionStorage.length).toBe(0);
  deny("setItem");
  expect(() => keepHistory("deeds", history)).not.toThrow();
});

it("a strike is kept in the database where there is no room for its slip", async () => {
  deny("setItem");
  await keepAct("me", "f", { kind: "undo", id: "s1" });
  expect((await waitingActs("me", "f")).map(({ act }) => act)).toEqual([{ kind: "undo", id: "s1" }]);
});
