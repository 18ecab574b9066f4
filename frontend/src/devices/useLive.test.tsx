import { QueryClient, QueryClientProvider, QueryObserver } from "@tanstack/react-query";
import { act, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { beforeEach, expect, it, vi } from "vitest";
import { NO_ANSWER, RequestError, type Session } from "../api/client";
import { FittingProvider, type ShownFitting } from "../app/context";
import { SessionProvider } from "../session/session";
import { useLive } from "./useLive";

class Source {
  static readonly CLOSED = 2;
  static all: Source[] = [];
  onopen: () => void = () => {};
  onerror: () => void = () => {};
  heard: Record<string, (event: { data: string }) => void> = {};
  closed = false;
  readyState = 1;
  constructor(readonly url: string) {
    Source.all.push(this);
  }
  addEventListener(name: string, act: (event: { data: string }) => void) {
    this.heard[name] = act;
  }
  close() {
    this.closed = true;
  }
}

const reload = vi.fn(() => Promise.resolve());
const client = new QueryClient();
const asked = vi.spyOn(client, "invalidateQueries");
const session = { csrf_token: "t", fitter: "Me", fitter_id: "me" } as unknown as Session;

function wrapper({ children }: { children: ReactNode }) {
  return (
    <QueryClientProvider client={client}>
      <SessionProvider session={session}>
        <FittingProvider value={{ server: { id: "f", revision: 4 }, reload } as unknown as ShownFitting}>
          {children}
        </FittingProvider>
      </SessionProvider>
    </QueryClientProvider>
  );
}

const names = () => asked.mock.calls.map(([about]) => about?.queryKey?.[0]);
const say = (fitting: string | null, revision: number) =>
  act(() => Source.all.at(-1)?.heard.change?.({ data: JSON.stringify({ fitting, revision }) }));

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal("EventSource", Source);
  vi.stubGlobal("BroadcastChannel", undefined);
  Source.all = [];
  asked.mockClear();
  reload.mockClear();
});

it("asks for what is shown at once, for the proposal a moment later, and for nothing of other fittings", async () => {
  const { result } = renderHook(useLive, { wrapper });
  const [line] = Source.all;
  expect(line?.url).toBe("/api/live?fitter=me");
  await act(async () => line?.onopen());
  expect(result.current.hearing).toBe(true);
  asked.mockClear();
  say("another", 0);
  expect(names()).toEqual([]);
  say("f", 0);
  await vi.advanceTimersByTimeAsync(1300);
  expect(names()).toContain("devices");
  expect(reload).toHaveBeenCalledTimes(1);
});

it("asks for the rack and for what rests on it when the studio's has changed", async () => {
  renderHook(useLive, { wrapper });
  say(null, 0);
  await vi.advanceTimersByTimeAsync(1300);
  expect(names()).toEqual(expect.arrayContaining(["rack", "prices", "venues", "build"]));
  expect(reload).toHaveBeenCalledTimes(1);
});

it("a strike is read though an edit that this page knows already comes after it", async () => {
  renderHook(useLive, { wrapper });
  say("f", 0);
  await vi.advanceTimersByTimeAsync(500);
  say("f", 5);
  await vi.advanceTimersByTimeAsync(10);
  expect(reload).toHaveBeenLastCalledWith(undefined);
  say("f", 6);
  await vi.advanceTimersByTimeAsync(10);
  expect(reload).toHaveBeenLastCalledWith(6);
  expect(reload).toHaveBeenCalledTimes(2);
});

it("says that another proposal is on its way from the first word until it is read, for every word", async () => {
  const read: (() => void)[] = [];
  reload.mockImplementation(() => new Promise((done) => read.push(done)));
  const { result } = renderHook(useLive, { wrapper });
  say("f", 3); // an edit of long ago
  expect(result.current.coming).toBe(false);
  say("f", 0);
  expect(result.current.coming).toBe(true);
  await act(() => vi.advanceTimersByTimeAsync(1300));
  say("f", 0); // while it is read
  await act(async () => read[0]?.());
  expect(result.current.coming).toBe(true);
  await act(() => vi.advanceTimersByTimeAsync(1300));
  await act(async () => read[1]?.());
  expect(result.current.coming).toBe(false);
  reload.mockImplementation(() => Promise.resolve());
});

it("goes on where strikes come faster than answers and without a pause", async () => {
  const answers: ((value: string) => void)[] = [];
  const queryFn = vi.fn(() => new Promise<string>((done) => answers.push(done)));
  const observer = new QueryObserver(client, { queryKey: ["carries", "f"], queryFn, initialData: "before" });
  const stop = observer.subscribe(() => {});
  renderHook(useLive, { wrapper });
  say("f", 0);
  await vi.advanceTimersByTimeAsync(100);
  const since = queryFn.mock.calls.length;
  for (let second = 0; second < 11; second++) {
    say("f", 0);
    await vi.advanceTimersByTimeAsync(1000);
  }
  expect(queryFn).toHaveBeenCalledTimes(since); // the answer on its way is not cut off
  expect(reload).toHaveBeenCalledTimes(1); // the proposal is read although it never was quiet
  answers.at(-1)?.("of the first strike");
  await vi.advanceTimersByTimeAsync(100);
  expect(observer.getCurrentResult().data).toBe("of the first strike");
  expect(queryFn).toHaveBeenCalledTimes(since + 1); // once for all strikes since
  answers.at(-1)?.("of the last");
  await vi.advanceTimersByTimeAsync(100);
  expect(observer.getCurrentResult().data).toBe("of the last");
  stop();
});

it("reads the fitting again when somebody else edited it, and not for its own edits", async () => {
  renderHook(useLive, { wrapper });
  say("f", 4);
  await vi.advanceTimersByTimeAsync(2000);
  expect(reload).not.toHaveBeenCalled();
  say("f", 5);
  await vi.advanceTimersByTimeAsync(10);
  expect(reload).toHaveBeenCalledTimes(1);
  expect(reload).toHaveBeenLastCalledWith(5);
});

it("says that it hears nothing, and asks who is signed in when the server refuses the line", async () => {
  const { result, unmount } = renderHook(useLive, { wrapper });
  const [line] = Source.all;
  if (!line) throw new Error("no line was opened");
  await act(async () => line.onopen());
  line.readyState = Source.CLOSED;
  await act(async () => line.onerror());
  expect(result.current.hearing).toBe(false);
  expect(names()).toContain("session");
  await act(() => vi.advanceTimersByTimeAsync(5000));
  expect(Source.all).toHaveLength(2);
  unmount();
  expect(Source.all.at(-1)?.closed).toBe(true);
});

it("a reading that failed is tried again; until it comes the screen does not say that it hears", async () => {
  reload.mockImplementationOnce(() => Promise.reject(new RequestError(NO_ANSWER, null)));
  const { result } = renderHook(useLive, { wrapper });
  await act(async () => Source.all.at(-1)?.onopen());
  expect(result.current.hearing).toBe(true);
  await act(() => vi.advanceTimersByTimeAsync(1300));
  expect([reload.mock.calls.length, result.current.hearing]).toEqual([1, false]);
  await act(() => vi.advanceTimersByTimeAsync(3000));
  expect([reload.mock.calls.length, result.current.hearing]).toEqual([2, true]);
  await act(() => vi.advanceTimersByTimeAsync(30_000));
  expect(reload).toHaveBeenCalledTimes(2);
});
