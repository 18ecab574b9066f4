import "fake-indexeddb/auto";
import { expect, it, vi } from "vitest";
import type { Strike } from "../api/client";

it("acts stay in their order where the clock of the tablet is set back and the page is opened anew", async () => {
  const before = await import("./actStore");
  await before.keepAct("me", "f", { kind: "take", strike: { id: "a" } as Strike });
  vi.spyOn(Date, "now").mockReturnValue(Date.now() - 3_600_000);
  vi.resetModules();
  const anew = await import("./actStore");
  await anew.waitingActs("me", "f");
  await anew.keepAct("me", "f", { kind: "undo", id: "a" });
  expect((await anew.waitingActs("me", "f")).map(({ act }) => act.kind)).toEqual(["take", "undo"]);
});
