import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { inFitting } from "../../testing/show";
import { useImport } from "./useImport";

let runs: ((id: string) => void)[] = [];
let failing = false;
let looks: { of: string | undefined; layout: object; answer: (body: object | null) => void }[] = [];

beforeEach(() => {
  vi.useFakeTimers();
  [runs, looks, failing] = [[], [], false];
  const json = (body: object) =>
    new Response(JSON.stringify(body), { headers: { "Content-Type": "application/json" } });
  vi.stubGlobal("fetch", async (request: Request) => {
    if (failing) throw new TypeError("no network");
    if (!request.url.endsWith("/look"))
      return new Promise<Response>((done) => runs.push((id) => done(json({ id, state: "ready", counts: null }))));
    const { layout } = (await request.json()) as { layout: object };
    return new Promise<Response>((done, fail) => {
      const answer = (body: object | null) => (body ? done(json(body)) : fail(new TypeError("no network")));
      looks.push({ of: request.url.split("/").at(-2), layout, answer });
    });
  });
});
afterEach(() => void vi.useRealTimers());
const after = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

function started() {
  const client = new QueryClient();
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{inFitting(children)}</QueryClientProvider>
  );
  return { ...renderHook(useImport, { wrapper }), client };
}

it("a file that could not be looked at is looked at again, in the layout that was asked for last, until the page is left", async () => {
  const { result, unmount } = started();
  act(() => result.current.send.mutate(new File(["a;b"], "a.csv")));
  await after(0);
  await act(async () => runs[0]?.("a"));
  await act(async () => looks[0]?.answer(null));
  expect([looks.length, result.current.failure]).toEqual([
    1,
    "No answer came from the server. What you typed stays here.",
  ]);
  await after(3000);
  expect(looks).toHaveLength(2);
  act(() => result.current.relayout({ delimiter: "tab" }));
  await after(0);
  await act(async () => looks[1]?.answer(null)); // of the layout before: nobody asks for it again
  await act(async () => looks[2]?.answer(null));
  await after(3000);
  expect(looks.map(({ layout }) => layout)).toEqual([{}, {}, { delimiter: "tab" }, { delimiter: "tab" }]);
  await act(async () => looks[3]?.answer(null));
  unmount();
  await after(30_000);
  expect(looks).toHaveLength(4);
});

it("a file that another took the place of is not looked at again", async () => {
  const { result } = started();
  act(() => result.current.send.mutate(new File(["a"], "a.csv")));
  await after(0);
  await act(async () => runs[0]?.("a"));
  act(() => result.current.send.mutate(new File(["b"], "b.csv")));
  await after(0);
  await act(async () => looks[0]?.answer(null));
  await act(async () => runs.at(-1)?.("b"));
  await after(30_000);
  expect(looks.map((one) => one.of)).toEqual(["a", "b"]);
});

it("an act on a file that got no answer says so until the run tells that it was done", async () => {
  const { result, client } = started();
  act(() => result.current.send.mutate(new File(["a"], "a.csv")));
  await after(0);
  await act(async () => runs[0]?.("a"));
  const tells = (state: string) =>
    act(() => client.setQueryData(["import", "f", "a"], { id: "a", state, counts: null }));
  tells("taken");
  failing = true;
  act(() => result.current.withdraw.mutate());
  await after(0);
  expect(result.current.problem).toBe("No answer came from the server. What you typed stays here.");
  tells("withdrawn");
  await after(0);
  expect(result.current.problem).toBeNull();
});
