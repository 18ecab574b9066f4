import { type IDBPDatabase, openDB } from "idb";
import { v4 as newId } from "uuid";
import type { OwnedWedge, ProofBall, Strike } from "../api/client";
import { local } from "../offline/texts";

/** What more is said of a strike after it was taken. */
export type Telling = Partial<
  Pick<Strike, "set_aside" | "note" | "divot" | "exit_mm" | "mark_back_mm" | "mark_toe_mm">
>;

/** What more is said of a ball of a proof: why it does not count, or that it is out. */
export type BallTelling = { set_aside?: string | null; out?: boolean };

export type Act =
  /** `wedges`: those of the bag that was shown when it was taken, by which its club goes. */
  | { kind: "take"; strike: Strike; wedges?: readonly OwnedWedge[] }
  /** `noteWas`: the note on the screen in whose place another was written. */
  | { kind: "tell"; id: string; changes: Telling; noteWas?: string }
  | { kind: "undo"; id: string }
  | { kind: "back"; id: string }
  | { kind: "ball"; proof: string; ball: ProofBall }
  | { kind: "ball_tell"; proof: string; id: string; changes: BallTelling }
  | { kind: "feel"; proof: string; id: string; block: number; value: number }
  | { kind: "tick"; id: string; order: string; club: number; operation: number; done: boolean };

/** Why the server does not take an act: in words, and at which field. */
export interface Refusal {
  message: string;
  field: string;
}

/** An act with its name in this browser's store. */
export interface KeptAct {
  key: string;
  act: Act;
  refusal: Refusal | null;
}

interface Row {
  id: string;
  /** Whose act it is: nobody else sees or sends it. Null in rows of an older program. */
  fitter: string | null;
  fitting: string;
  at: number;
  act: Act;
  refusal?: Refusal | null;
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

/** The strike or ball that an act is about. */
export function strikeOf(act: Act): string {
  if (act.kind === "take") return act.strike.id;
  return act.kind === "ball" ? act.ball.id : act.id;
}

/** A fitter's acts of a fitting that wait in this browser, in their order. */
export async function waitingActs(fitter: string, fitting: string): Promise<KeptAct[]> {
  const db = await database();
  for (const row of slips().filter((slip) => slip.fitting === fitting)) {
    await db.put(STORE, row);
    local.drop(SLIP + row.id);
  }
  const range = IDBKeyRange.bound([fitting, 0], [fitting, Number.MAX_VALUE]);
  const rows = (await db.getAllFromIndex(STORE, BY_FITTING, range)) as Row[];
  // what comes now comes after them, also where the tablet's clock was set back since
  last = Math.max(last, ...rows.map((row) => row.at));
  return rows
    .filter((row) => (row.fitter ?? fitter) === fitter)
    .map((row) => ({ key: row.id, act: row.act, refusal: row.refusal ?? null }));
}

/** The acts of a fitter that wait in this browser, over all fittings. */
export async function actsLeft(fitter: string): Promise<Act[]> {
  const rows = [...((await (await database()).getAll(STORE)) as Row[]), ...slips()];
  return rows.filter((row) => row.fitter === fitter).map(({ act }) => act);
}

/** Let go of everything of a fitter that waits in this browser. */
export async function forgetActs(fitter: string): Promise<void> {
  const db = await database();
  for (const row of (await db.getAll(STORE)) as Row[]) if (row.fitter === fitter) await db.delete(STORE, row.id);
  for (const slip of slips()) if (slip.fitter === fitter) local.drop(SLIP + slip.id);
}

/** Keep an act until the server has it; it is on the disk when this is done. */
export async function keepAct(fitter: string, fitting: string, act: Act): Promise<string> {
  last = Math.max(last + 0.001, Date.now());
  const row: Row = { id: newId(), fitter, fitting, at: last, act };
  // the database takes some milliseconds, and a page that is closed within them leaves this slip behind
  local.keep(SLIP + row.id, JSON.stringify(row));
  await write(row);
  local.drop(SLIP + row.id);
  return row.id;
}

/** Note why the server refused an act, or with null that it is to be sent again; it may be another act then. */
export async function markAct(key: string, refusal: Refusal | null, act?: Act): Promise<void> {
  const row = (await (await database()).get(STORE, key)) as Row | undefined;
  if (row) await write({ ...row, refusal, act: act ?? row.act });
}

/** Whether an act still waits: another page of this browser may have sent it. */
export async function actWaits(key: string): Promise<boolean> {
  return (await (await database()).getKey(STORE, key)) !== undefined;
}

/** Forget an act that the server has, or that the fitter let go. */
export async function dropAct(key: string): Promise<void> {
  await (await database()).delete(STORE, key);
}

async function write(row: Row): Promise<void> {
  const transaction = (await database()).transaction(STORE, "readwrite", { durability: "strict" });
  await transaction.store.put(row);
  await transaction.done;
}

/** Acts that a page wrote down and did not get into the database before it was closed. */
function slips(): Row[] {
  return local
    .names(SLIP)
    .map((name) => JSON.parse(local.read(name) ?? "null") as Row | null)
    .filter((row): row is Row => row !== null);
}
