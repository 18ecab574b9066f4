import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { keep, keepShot, type Score, type Shot, send, waiting } from "./outbox";

const score = (id: string): Score => ({ id, drill: "line", score: 6, count: 10, on: "2026-05-01" });
const reply = (status: number, body: object) =>
  vi.stubGlobal(
    "fetch",
    vi.fn(async () => new Response(JSON.stringify(body), { status })),
  );

beforeEach(() => localStorage.clear());
afterEach(() => {
  vi.restoreAllMocks();
});

it("lets scores go once the server has them, and keeps one that was counted meanwhile", async () => {
  keep("t", score("a"));
  vi.stubGlobal(
    "fetch",
    vi.fn(async () => {
      keep("t", score("b"));
      return new Response("{}");
    }),
  );
  expect(await send("t")).toBeNull();
  expect(waiting("scores", "t").map((one) => one.id)).toEqual(["b"]);
  expect(waiting("scores", "another page")).toEqual([]);
});

it("keeps them whatever else comes back, and says why", async () => {
  keep("t", score("a"));
  for (const status of [404, 422, 429, 503]) {
    reply(status, { message: "closed" });
    expect(await send("t")).toEqual({ words: "closed", again: status === 429 || status === 503 });
    expect(waiting("scores", "t")).toHaveLength(1);
  }
  vi.stubGlobal("fetch", vi.fn().mockRejectedValue(new TypeError("no network")));
  await expect(send("t")).rejects.toThrow("no network");
  expect(waiting("scores", "t")).toHaveLength(1);
});

it("keeps them for as long as the page is open where the phone keeps nothing", () => {
  vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
    throw new Error("full");
  });
  keep("u", score("a"));
  keep("u", score("b"));
  expect(waiting("scores", "u").map((one) => one.id)).toEqual(["a", "b"]);
});

it("a phone that is full keeps what it has, and what comes then once, until it is sent", async () => {
  keep("v", score("a"));
  const room = vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
    throw new Error("full");
  });
  keep("v", score("b"));
  keep("v", score("c"));
  expect(waiting("scores", "v").map((one) => one.id)).toEqual(["a", "b", "c"]);
  expect(localStorage.getItem("oblatus-scores-v")).toContain('"a"');
  room.mockRestore();
  reply(200, {});
  expect(await send("v")).toBeNull();
  expect(waiting("scores", "v")).toEqual([]);
});

const shot = (id: string, removed = false): Shot => ({
  id,
  round: "r",
  on: "2026-05-01",
  situation: "chip",
  ground: "",
  distance_m: null,
  club: "pw",
  advised: null,
  result: "green",
  left_m: null,
  holed_in: null,
  removed,
});

it("a score that is refused keeps neither other scores nor shots from being sent", async () => {
  for (const id of ["a", "wrong", "b"]) keep("t", score(id));
  keepShot("t", shot("c"));
  vi.stubGlobal(
    "fetch",
    vi.fn(async (_: string, { body }: { body: string }) =>
      body.includes("wrong") ? new Response('{"message":"is no drill of ours"}', { status: 422 }) : new Response("{}"),
    ),
  );
  expect(await send("t")).toEqual({ words: "is no drill of ours", again: false });
  expect([waiting("scores", "t").map(({ id }) => id), waiting("shots", "t")]).toEqual([["wrong"], []]);
});

it("sends scores and shots each to their place, and a shot taken back while it was under way after it", async () => {
  keep("t", score("a"));
  keepShot("t", shot("b"));
  const asked: [string, unknown][] = [];
  vi.stubGlobal(
    "fetch",
    vi.fn(async (path: string, { body }: { body: string }) => {
      asked.push([path, JSON.parse(body)]);
      if (path.endsWith("shots") && asked.length === 2) keepShot("t", shot("b", true));
      return new Response("{}");
    }),
  );
  expect(await send("t")).toBeNull();
  expect(waiting("shots", "t").map((one) => one.removed)).toEqual([true]);
  expect(await send("t")).toBeNull();
  expect(asked.map(([path]) => path)).toEqual(["/api/page/t/scores", "/api/page/t/shots", "/api/page/t/shots"]);
  expect(waiting("shots", "t")).toEqual([]);
});
