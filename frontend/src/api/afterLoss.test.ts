import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { afterLoss, onUnsure } from "./afterLoss";
import { NO_ANSWER, RequestError } from "./client";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());
const body = { code: "x", message: "x", faults: [] };

/** How often the list and the fitting were read, and whoever wants to know told, after an act failed so. */
async function after(error: Error, answered: boolean[]) {
  const client = new QueryClient({
    defaultOptions: { queries: { retry: false, staleTime: Number.POSITIVE_INFINITY } },
  });
  const line = [...answered];
  vi.stubGlobal("fetch", () =>
    line.shift() ? Promise.resolve(Response.json({})) : Promise.reject(new TypeError("no")),
  );
  const read = { kept: 0, fitting: 0, told: 0 };
  const stops = (["kept", "fitting"] as const).map((name) =>
    new QueryObserver(client, { queryKey: [name], queryFn: () => ++read[name] }).subscribe(() => {}),
  );
  const quiet = onUnsure(() => {
    read.told += 1;
  });
  await vi.advanceTimersByTimeAsync(0);
  void afterLoss(client, error);
  void afterLoss(client, error);
  await vi.advanceTimersByTimeAsync(4000);
  const soon = { ...read };
  await vi.advanceTimersByTimeAsync(60_000);
  for (const stop of [...stops, quiet]) stop();
  return { soon, read };
}
const before = { kept: 1, fitting: 1, told: 0 };
const again = { kept: 2, fitting: 1, told: 1 };

it("what is shown is asked for again after an act without an answer, once the server answers, and once alone", async () => {
  expect(await after(new RequestError(NO_ANSWER, null), [false, false, true])).toEqual({ soon: before, read: again });
  expect(await after(new RequestError(NO_ANSWER, null), [true])).toEqual({ soon: again, read: again });
});

it("what is not there any more is asked for again at once; a field that is wrong changes nothing", async () => {
  const { soon } = await after(new RequestError(404, body), []);
  expect(soon).toEqual({ kept: 3, fitting: 1, told: 2 });
  expect((await after(new RequestError(422, body), [])).read).toEqual(before);
});
