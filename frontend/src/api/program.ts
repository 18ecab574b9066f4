import { useSyncExternalStore } from "react";

const HEADER = "X-Oblatus-Program";
/** The script with which this page began; none where it is served while it is being worked on. */
const own = () =>
  document.querySelector<HTMLScriptElement>('script[type="module"][src*="/assets/"]')?.src.split("/").at(-1);

let newer = false;
const listeners = new Set<() => void>();

/** Hear from an answer of the server with which script its page begins now. */
export function hearProgram(response: Response) {
  const there = response.headers.get(HEADER);
  const mine = own();
  if (!there || !mine || newer === (there !== mine)) return;
  newer = !newer;
  for (const tell of listeners) tell();
}

function subscribe(tell: () => void) {
  listeners.add(tell);
  return () => listeners.delete(tell);
}

/** Whether the server has another program than the one that this page runs. */
export const useNewer = () => useSyncExternalStore(subscribe, () => newer);
