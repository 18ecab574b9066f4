import { MantineProvider } from "@mantine/core";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { vi } from "vitest";
import { FittingProvider, type ShownFitting } from "../app/context";

/** Answers of a stand-in server by method and end of the address, or promises of them; what was asked is kept. */
export function server(answers: Record<string, unknown>) {
  const asked: { line: string; body: string }[] = [];
  vi.stubGlobal(
    "fetch",
    vi.fn(async (input: Request | string, init?: RequestInit) => {
      const request = typeof input === "string" ? new Request(new URL(input, window.location.origin), init) : input;
      const line = `${request.method} ${new URL(request.url).pathname.split("/").slice(4).join("/")}`;
      asked.push({ line, body: request.method === "GET" ? "" : await request.text() });
      const key = Object.keys(answers).find((name) => line.startsWith(name));
      if (key === undefined) return new Response(JSON.stringify({ message: "not there" }), { status: 404 });
      const value = await answers[key];
      return value === null
        ? new Response(null, { status: 204 })
        : new Response(JSON.stringify(value), { status: 200, headers: { "Content-Type": "application/json" } });
    }),
  );
  return asked;
}

/** A part of a fitting on the screen, with the fitting `f`. */
export const show = (part: ReactNode, store: Partial<ShownFitting> | object = {}) => showAlone(inFitting(part, store));

/** The part within the fitting `f`. */
export function inFitting(part: ReactNode, store: Partial<ShownFitting> | object = {}) {
  const whole = {
    server: { id: "f" },
    faults: [],
    reload: () => Promise.resolve(),
    refresh: () => {},
    goAfter: () => {},
    ...store,
  } as unknown as ShownFitting;
  return <FittingProvider value={whole}>{part}</FittingProvider>;
}

/** A part outside any fitting on the screen; `again` shows another in its place, `client` holds what was heard. */
export function showAlone(part: ReactNode) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const around = (inner: ReactNode) => (
    <MantineProvider>
      <QueryClientProvider client={client}>
        <MemoryRouter>{inner}</MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>
  );
  const shown = render(around(part));
  return { ...shown, client, again: (next: ReactNode) => shown.rerender(around(next)) };
}
