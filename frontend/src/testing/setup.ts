import { cleanup, configure } from "@testing-library/react";
import { afterEach, vi } from "vitest";

// what is waited for comes, sooner or later by what else the machine does
configure({ asyncUtilTimeout: 30_000 });

/** What jsdom lacks and the components ask for. */
class Observer {
  observe() {}
  unobserve() {}
  disconnect() {}
}

Object.assign(window, {
  matchMedia: (query: string) => ({
    matches: false,
    media: query,
    addEventListener: () => {},
    removeEventListener: () => {},
    addListener: () => {},
    removeListener: () => {},
  }),
  ResizeObserver: Observer,
});
Element.prototype.scrollIntoView = () => {};

// a text field that grows with its text listens for letters that come late
Object.defineProperty(document, "fonts", { value: new EventTarget(), configurable: true });

/** What a test rendered, put in the place of the browser's own or did to its clock ends with it. */
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
