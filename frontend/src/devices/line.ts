/**
 * A word of the server's: of which fitting, and the revision it is at if its document changed (0: strikes, devices). Of no
 * fitting: what is the studio's changed, or the line was broken.
 */
export interface Change {
  fitting: string | null;
  revision: number;
}

type Message = { kind: "change"; change: Change } | { kind: "hearing"; on: boolean } | { kind: "hello" };

const CHANNEL = "oblatus-live";
const AGAIN_MS = 4000;

/**
 * One line to the server for all tabs of a browser: the tab that holds the lock listens and tells the others; when it is
 * closed the next one takes over.
 */
export function openLine(
  fitter: string,
  onChange: (change: Change) => void,
  onHearing: (on: boolean) => void,
  onSignedOut: () => void,
): () => void {
  let closed = false;
  let source: EventSource | null = null;
  let hearing = false;
  let leads = false;
  let retry: ReturnType<typeof setTimeout> | undefined;
  let release = () => {};
  const channel = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel(`${CHANNEL}-${fitter}`);

  const hear = (on: boolean) => {
    hearing = on;
    onHearing(on);
    channel?.postMessage({ kind: "hearing", on } satisfies Message);
  };
  const tell = (change: Change) => {
    onChange(change);
    channel?.postMessage({ kind: "change", change } satisfies Message);
  };
  const listen = () => {
    if (closed) return;
    leads = true;
    source = new EventSource(`/api/live?fitter=${fitter}`);
    source.onopen = () => {
      hear(true);
      tell({ fitting: null, revision: 0 }); // what came while nobody heard is looked up
    };
    source.onerror = () => {
      hear(false); // the browser tries again by itself, unless the server refused
      if (source?.readyState !== EventSource.CLOSED) return;
      onSignedOut();
      retry = setTimeout(listen, AGAIN_MS);
    };
    source.addEventListener("change", (event) => tell(JSON.parse(event.data) as Change));
    source.addEventListener("signed_out", () => {
      source?.close();
      hear(false);
      onSignedOut();
      retry = setTimeout(listen, AGAIN_MS);
    });
  };
  if (channel)
    channel.onmessage = (event: MessageEvent<Message>) => {
      const message = event.data;
      if (message.kind === "hello") {
        if (leads) channel.postMessage({ kind: "hearing", on: hearing } satisfies Message);
      } else if (leads) return;
      else if (message.kind === "change") onChange(message.change);
      else onHearing(message.on);
    };
  if (channel && navigator.locks) {
    channel.postMessage({ kind: "hello" } satisfies Message);
    const turn = new AbortController();
    const held = new Promise<void>((done) => {
      release = done;
    });
    navigator.locks
      .request(`${CHANNEL}-${fitter}`, { signal: turn.signal }, () => {
        listen();
        return held;
      })
      .catch(() => {}); // the tab was closed before its turn came
    const before = release;
    release = () => {
      turn.abort();
      before();
    };
  } else listen();
  return () => {
    closed = true;
    clearTimeout(retry);
    source?.close();
    release();
    channel?.close();
  };
}
