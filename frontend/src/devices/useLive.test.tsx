import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { FittingProvider } from "../app/context";
import type { FittingStore } from "../app/useFitting";
import { useLive } from "./useLive";

class Source {
  static last: Source;
  onopen: () => void = () => {};
  onerror: () => void = () => {};
  heard: Record<string, () => void> = {};
  closed = false;
  constructor(readonly url: string) {
    Source.last = this;
  }
  addEventListener(name: string, act: () => void) {
    this.heard[name] = act;
  }
  close() {
    this.closed = true;
  }
}

const reload = vi.fn(() => Promise.resolve());
const client = new QueryClient();
const asked = vi.spyOn(client, "invalidateQueries");

function wrapper({ children }: { children: ReactNode }) {
  return (
    <QueryClientProvider client={client}>
      <FittingProvider value={{ server: { id: "f" }, reload } as unknown as FittingStore}>{children}</FittingProvider>
    </QueryClientProvider>
  );
}

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal("EventSource", Source);
  asked.mockClear();
  reload.mockClear();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

it("looks up what was missed whenever the connection comes back, and reloads once for many words", async () => {
  const { result, unmount } = renderHook(() => useLive(true), { wrapper });
  const source = Source.last;
  act(() => source.onopen());
  expect(result.current).toBe(true);
  act(() => source.onerror());
  expect(result.current).toBe(false);
  asked.mockClear();
  await act(async () => {
    source.onopen();
    await vi.advanceTimersByTimeAsync(0);
  });
  expect(asked.mock.calls.map(([filter]) => (filter as { queryKey: string[] }).queryKey[0])).toContain("session");
  act(() => {
    for (let i = 0; i < 5; i++) source.heard.change?.();
    vi.advanceTimersByTime(3000);
  });
  expect(reload).toHaveBeenCalledTimes(1);
  unmount();
  expect(source.closed).toBe(true);
});
