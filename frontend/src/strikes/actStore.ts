import { type IDBPDatabase, openDB } from "idb";
import type { Strike } from "../api/client";

/** What more is said of a strike after it was taken. */
export type Telling = Partial<
  Pick<Strike, "set_aside" | "note" | "divot" | "exit_mm" | "mark_back_mm" | "mark_toe_mm">
>;

export type Act =
  | { kind: "take"; strike: Strike }
  | { kind: "tell"; id: string; changes: Telling }
  | { kind: "undo"; id: string };

/** An act with its place in this browser's store. */
export interface KeptAct {
  key: number;
  act: Act;
}

const STORE = "acts";
const BY_FITTING = "fitting";

interface Row {
  fitting: string;
  act: Act;
}

let opened: Promise<IDBPDatabase> | null = null;

function database(): Promise<IDBPDatabase> {
  opened ??= openDB("oblatus", 1, {
    upgrade(db) {
      db.createObjectStore(STORE, { autoIncrement: true }).createIndex(BY_FITTING, "fitting");
    },
    terminated: () => {
      opened = null;
    },
  });
  return opened;
}

/** Acts of a fitting that wait in this browser, in their order. */
export async function waitingActs(fitting: string): Promise<KeptAct[]> {
  const db = await database();
  const found: KeptAct[] = [];
  let cursor = await db.transaction(STORE).store.index(BY_FITTING).openCursor(IDBKeyRange.only(fitting));
  while (cursor) {
    found.push({ key: Number(cursor.primaryKey), act: (cursor.value as Row).act });
    cursor = await cursor.continue();
  }
  return found;
}

/** Keep an act until the server has it; it is on the disk when this is done. */
export async function keepAct(fitting: string, act: Act): Promise<number> {
  const db = await database();
  const transaction = db.transaction(STORE, "readwrite", { durability: "strict" });
  const key = Number(await transaction.store.add({ fitting, act } satisfies Row));
  await transaction.done;
  return key;
}

/** Forget an act that the server has. */
export async function dropAct(key: number): Promise<void> {
  await (await database()).delete(STORE, key);
}
