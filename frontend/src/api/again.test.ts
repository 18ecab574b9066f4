import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { againAfter } from "./again";
import { NO_ANSWER, RequestError } from "./client";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());
const body = { code: "x", message: "x", faults: [] };

async function asked(error: Error, seconds: number) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, refetchInterval: againAfter } } });
  const queryFn = vi.fn(() => Promise.reject(error));
  const observer = new QueryObserver(client, { queryKey: ["it"], queryFn });
  const stop = observer.subscribe(() => {});
  await vi.advanceTimersByTimeAsync(1000 * seconds);
  const before = queryFn.mock.calls.length;
  queryFn.mockImplementation(() => Promise.resolve("there") as never);
  await vi.advanceTimersByTimeAsync(300_000);
  stop();
  return { before, all: queryFn.mock.calls.length, found: observer.getCurrentResult().data };
}

it("what has no answer is asked again, less and less often, until it has one", async () => {
  // at 0, 5, 15 and 35 s, and once more
  expect(await asked(new RequestError(NO_ANSWER, null), 60)).toEqual({ before: 4, all: 5, found: "there" });
});

it("a server that says when is asked then", async () => {
  expect(await asked(new RequestError(503, null, 20), 22)).toMatchObject({ before: 2, found: "there" });
});

it.each([
  [new RequestError(404, body)],
  [new RequestError(422, body)],
  [new RequestError(401, body)],
  [new Error("x")],
])("what is refused is not asked again: %s", async (error) => {
  expect(await asked(error, 60)).toEqual({ before: 1, all: 1, found: undefined });
});
