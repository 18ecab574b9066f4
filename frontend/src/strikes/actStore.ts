import { type IDBPDatabase, openDB } from "idb";
import type { Strike } from "../api/client";
import { newId } from "./newId";

/** What more is said of a strike after it was taken. */
export type Telling = Partial<
  Pick<Strike, "set_aside" | "note" | "divot" | "exit_mm" | "mark_back_mm" | "mark_toe_mm">
>;

export type Act =
  | { kind: "take"; strike: Strike }
  | { kind: "tell"; id: string; changes: Telling }
  | { kind: "undo"; id: string };

/** An act with its name in this browser's store. */
export interface KeptAct {
  key: string;
  act: Act;
}

interface Row {
  id: string;
  fitting: string;
  at: number;
  act: Act;
}

const STORE = "acts";
const BY_FITTING = "fitting";
const SLIP = "oblatus-act-";

let opened: Promise<IDBPDatabase> | null = null;
let last = 0;

function database(): Promise<IDBPDatabase> {
  opened ??= openDB("oblatus", 2, {
    upgrade(db) {
      if (db.objectStoreNames.contains(STORE)) db.deleteObjectStore(STORE);
      db.createObjectStore(STORE, { keyPath: "id" }).createIndex(BY_FITTING, ["fitting", "at"]);
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
  for (const row of slips().filter((slip) => slip.fitting === fitting)) {
    await db.put(STORE, row);
    localStorage.removeItem(SLIP + row.id);
  }
  const range = IDBKeyRange.bound([fitting, 0], [fitting, Number.MAX_VALUE]);
  const rows = (await db.getAllFromIndex(STORE, BY_FITTING, range)) as Row[];
  return rows.map((row) => ({ key: row.id, act: row.act }));
}

/** Keep an act until the server has it; it is on the disk when this is done. */
export async function keepAct(fitting: string, act: Act): Promise<string> {
  last = Math.max(last + 0.001, Date.now());
  const row: Row = { id: newId(), fitting, at: last, act };
  // the database takes some milliseconds, and a page that is closed within them leaves this slip behind
  localStorage.setItem(SLIP + row.id, JSON.stringify(row));
  const db = await database();
  const transaction = db.transaction(STORE, "readwrite", { durability: "strict" });
  await transaction.store.put(row);
  await transaction.done;
  localStorage.removeItem(SLIP + row.id);
  return row.id;
}

/** Whether an act still waits: another page of this browser may have sent it. */
export async function actWaits(key: string): Promise<boolean> {
  return (await (await database()).getKey(STORE, key)) !== undefined;
}

/** Forget an act that the server has. */
export async function dropAct(key: string): Promise<void> {
  await (await database()).delete(STORE, key);
}

/** Acts that a page wrote down and did not get into the database before it was closed. */
function slips(): Row[] {
  return Object.keys(localStorage)
    .filter((name) => name.startsWith(SLIP))
    .map((name) => JSON.parse(localStorage.getItem(name) ?? "null") as Row | null)
    .filter((row): row is Row => row !== null);
}
