import { v4 as newId } from "uuid";
import { tab } from "./texts";

const KEY = "oblatus-tab";
const held = (id: string) => `oblatus-tab-${id}`;

let mine = "";

/** This tab's name: the same after a reload, another one in a tab that was duplicated. */
export const tabName = () => mine;

/** Find the tab's name and hold it for as long as the tab is open. */
export async function nameTab(): Promise<void> {
  const before = tab.read(KEY);
  const found = before && (await hold(before)) ? before : newId();
  if (found !== before) await hold(found);
  tab.keep(KEY, found);
  mine = found;
}

/** The names of other tabs that are open; null where the browser does not say. */
export async function openTabs(): Promise<string[] | null> {
  if (!navigator.locks) return null;
  const { held: locks = [] } = await navigator.locks.query();
  return locks.flatMap((lock) => (lock.name?.startsWith(held("")) ? [lock.name.slice(held("").length)] : []));
}

/** Whether the name was free, and is now ours until the tab closes. */
function hold(id: string): Promise<boolean> {
  if (!navigator.locks) return Promise.resolve(true);
  return new Promise((done) => {
    void navigator.locks.request(held(id), { ifAvailable: true }, (lock) => {
      done(lock !== null);
      return lock ? new Promise(() => {}) : undefined;
    });
  });
}

/** Do something that only one tab of this browser does at a time. */
export async function alone<T>(name: string, act: () => Promise<T>): Promise<T> {
  if (!navigator.locks) return act();
  return navigator.locks.request(name, act) as Promise<T>;
}
