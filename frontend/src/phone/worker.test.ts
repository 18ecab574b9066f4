import { readFileSync } from "node:fs";
import { beforeEach, expect, it, vi } from "vitest";

const CODE = readFileSync("public/phone-sw.js", "utf8");

type Asked = {
  request: { method: string; url: string; cache?: string };
  respondWith: (answer: Promise<Response>) => void;
};
let hear: (event: Asked) => void = () => {};
let kept = new Map<string, Response>();
let fetched: string[] = [];
let network: (url: string) => Promise<Response> = () => Promise.reject(new TypeError("no network"));

beforeEach(() => {
  vi.useFakeTimers();
  kept = new Map();
  fetched = [];
  const store = {
    put: async ({ url }: { url: string }, answer: Response) => void kept.set(url, answer),
    delete: async ({ url }: { url: string }) => kept.delete(url),
  };
  const caches = { open: async () => store, match: async ({ url }: { url: string }) => kept.get(url)?.clone() };
  const worker = {
    location: { origin: "https://studio.example" },
    addEventListener: (name: string, heard: typeof hear) => {
      if (name === "fetch") hear = heard;
    },
  };
  const fetch = ({ url }: { url: string }) => {
    fetched.push(url);
    return network(url);
  };
  new Function("self", "caches", "fetch", CODE)(worker, caches, fetch);
});
/** What the worker answers to a request; undefined where it leaves it to the browser. */
function ask(path: string, change: object = {}): Promise<Response> | undefined {
  let answered: Promise<Response> | undefined;
  const request = { method: "GET", url: `https://studio.example${path}`, ...change };
  hear({ request, respondWith: (answer) => { answered = answer; } }); // biome-ignore format: one line
  answered?.catch(() => {});
  return answered;
}
const words = async (answer: Promise<Response> | undefined) => (await answer)?.text();
const PAGE = "/api/page/abc";
const never = () => new Promise<Response>(() => {});

it("what was fetched is shown again without a connection, and something else with one", async () => {
  network = async () => new Response("first");
  expect(await words(ask(PAGE))).toBe("first");
  network = () => Promise.reject(new TypeError("no network"));
  expect(await words(ask(PAGE))).toBe("first");
  network = async () => new Response("second");
  expect(await words(ask(PAGE))).toBe("second");
  expect(await words(ask(PAGE))).toBe("second");
  await expect(ask("/p/other")).resolves.toBeTruthy();
});

it("a weak signal is waited for three seconds where something is kept, and for good where nothing is", async () => {
  network = async () => new Response("kept");
  await ask(PAGE);
  network = never;
  const answer = ask(PAGE);
  await vi.advanceTimersByTimeAsync(2900);
  let done = false;
  void answer?.then(() => { done = true; }); // biome-ignore format: one line
  await vi.advanceTimersByTimeAsync(0);
  expect(done).toBe(false);
  await vi.advanceTimersByTimeAsync(200);
  expect(await words(answer)).toBe("kept");
  const first = ask("/p/new");
  let came = false;
  void first?.then(() => { came = true; }); // biome-ignore format: one line
  await vi.advanceTimersByTimeAsync(60_000);
  expect(came).toBe(false);
});

it("what comes late is kept for the next time, and after something was sent only the server's answer will do", async () => {
  network = async () => new Response("before");
  await ask(PAGE);
  let arrive: (answer: Response) => void = () => {};
  network = () => new Promise((done) => { arrive = done; }); // biome-ignore format: one line
  const weak = ask(PAGE);
  await vi.advanceTimersByTimeAsync(3100);
  expect(await words(weak)).toBe("before");
  const must = ask(PAGE, { cache: "reload" });
  await vi.advanceTimersByTimeAsync(10_000);
  arrive(new Response("with the score"));
  expect(await words(must)).toBe("with the score");
  network = () => Promise.reject(new TypeError("no network"));
  expect(await words(ask(PAGE))).toBe("with the score");
});

it("a page that was closed is not shown from the past; hashed files are fetched once; the rest is the browser's", async () => {
  network = async () => new Response("open");
  await ask(PAGE);
  network = async () => new Response("closed", { status: 404 });
  expect(await words(ask(PAGE))).toBe("closed");
  expect(kept.size).toBe(0);
  network = async () => new Response("code");
  await ask("/assets/a-123.js");
  fetched = [];
  expect(await words(ask("/assets/a-123.js"))).toBe("code");
  expect(fetched).toEqual([]);
  expect(ask("/api/page/abc/scores", { method: "POST" })).toBeUndefined();
  expect(ask("/api/fittings")).toBeUndefined();
  expect(ask("/api/page/abc/dates.ics")).toBeUndefined();
});
