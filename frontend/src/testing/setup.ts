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
