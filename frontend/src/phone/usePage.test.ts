import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { keep, type Score, waiting } from "./outbox";
import { usePage } from "./usePage";

const score = (id: string): Score => ({ id, drill: "line", score: 6, count: 10, on: "2026-05-01" });
type Answer = () => Promise<Response>;
const gone: Answer = () => Promise.reject(new TypeError("no network"));
const says =
  (status: number, body: object = {}): Answer =>
  async () =>
    new Response(JSON.stringify(body), { status });
let taken: Score[] = [];
let page: Answer = gone;
let post: Answer = gone;
let asked: string[] = [];

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  taken = [];
  asked = [];
  page = async () => new Response(JSON.stringify({ scores: taken }));
  post = says(200);
  vi.stubGlobal("fetch", async (path: string, { method = "GET", cache, body = "{}" }: RequestInit) => {
    asked.push(`${method} ${path.split("/").at(-1)}${cache ? ` ${cache}` : ""}`);
    if (method === "GET") return page();
    const reply = await post();
    if (reply.ok) taken = [...taken, ...(JSON.parse(String(body)) as { scores: Score[] }).scores];
    return reply;
  });
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});
const after = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
async function open() {
  const shown = renderHook(() => usePage("t"));
  await after(0);
  return shown.result;
}
const count = (result: Awaited<ReturnType<typeof open>>, id: string) =>
  act(async () => {
    keep("t", score(id));
    result.current.deliver();
  });

it("a score that fails while the connection comes back is sent then, not at the next visit", async () => {
  const result = await open();
  let fail: (why: Error) => void = () => {};
  post = () => new Promise((_, no) => { fail = no; }); // biome-ignore format: one line
  await count(result, "a");
  expect(result.current.fate).toBe("sending");
  await act(async () => void window.dispatchEvent(new Event("online")));
  post = says(200);
  await act(async () => fail(new TypeError("no network")));
  expect(waiting("scores", "t")).toEqual([]);
  expect(taken.map(({ id }) => id)).toEqual(["a"]);
});

it("what waits is tried again by itself, less and less often, and says so", async () => {
  const result = await open();
  post = gone;
  await count(result, "a");
  expect([result.current.fate, result.current.unsent.length]).toEqual(["waits", 1]);
  await after(65_000);
  expect(asked.filter((one) => one === "POST scores")).toHaveLength(4); // at 0, 5, 15 and 35 s
  post = says(200);
  await after(60_000);
  expect([waiting("scores", "t"), result.current.unsent]).toEqual([[], []]);
});

it("a server that is busy is asked again, one that refuses is not", async () => {
  const result = await open();
  post = says(503, { message: "Later." });
  await count(result, "a");
  expect(result.current.fate).toEqual({ refused: "Later." });
  post = says(404, { message: "Closed." });
  await after(6000);
  expect(result.current.fate).toEqual({ refused: "Closed." });
  asked = [];
  await after(300_000);
  expect(asked).toEqual([]);
  post = says(200);
  await act(async () => void window.dispatchEvent(new Event("online")));
  expect(waiting("scores", "t")).toEqual([]);
});

it("a score that was sent stays in its chart until the page has it, once", async () => {
  const result = await open();
  page = gone;
  await count(result, "a");
  expect([result.current.unsent, result.current.scores.map(({ id }) => id)]).toEqual([[], ["a"]]);
  asked = [];
  page = async () => new Response(JSON.stringify({ scores: taken }));
  await after(6000);
  expect(asked).toEqual(["GET t reload"]);
  expect(result.current.scores.map(({ id }) => id)).toEqual(["a"]);
  expect(result.current.opened?.scores).toHaveLength(1);
});

it("a page that was not kept opens once there is a connection", async () => {
  page = gone;
  const result = await open();
  expect(result.current.problem).toBe("There is no connection, and this phone has not kept the page yet.");
  page = async () => new Response(JSON.stringify({ scores: [] }));
  await after(6000);
  expect(result.current.opened).not.toBeNull();
  asked = [];
  await after(300_000);
  expect(asked).toEqual([]);
});
