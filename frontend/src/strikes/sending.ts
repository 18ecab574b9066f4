import { api, lost, type RequestError, type Strike, unwrap } from "../api/client";
import { type Act, type KeptAct, type Refusal, strikeOf } from "./actStore";

const LONGEST_MS = 60_000;

/** An act on its way; `key` is its place in this browser's store, null if the browser keeps nothing. */
export interface Held {
  act: Act;
  key: Promise<string | null>;
  refusal: Refusal | null;
  tries: number;
  /** Not to be sent before, by the page's clock [ms]: a tablet's may be set back meanwhile. */
  after: number;
}

/** An act that an earlier page left behind. */
export const heldAct = ({ act, key }: KeptAct): Held => ({
  act,
  key: Promise.resolve(key),
  refusal: null,
  tries: 0,
  after: 0,
});

/** How long to wait after so many tries [ms]. */
export const backoff = (tries: number) => Math.min(1000 * 2 ** Math.min(tries, 6), LONGEST_MS);

/** The acts before which nothing of the same strike waits. */
function foremost(acts: readonly Held[]): Held[] {
  const first = new Map<string, Held>();
  for (const held of acts) if (!first.has(strikeOf(held.act))) first.set(strikeOf(held.act), held);
  return [...first.values()];
}

/** The first act whose time has come and before which nothing of the same strike waits. */
export const next = (acts: readonly Held[]) => foremost(acts).find((held) => held.after <= performance.now());

/** How long until `next` finds one [ms]. */
export const untilNext = (acts: readonly Held[]) =>
  Math.max(0, Math.min(...foremost(acts).map((held) => held.after)) - performance.now());

/** A field's name without its unit: the message says that. */
const named = (field: string) => field.replace(/_(m|mps|deg|mm|rpm)$/, "").replaceAll("_", " ");

/** Why an act is refused, at which field. */
export function refusalOf(error: RequestError): Refusal {
  const fault = error.body?.faults?.[0];
  if (!fault) return { message: error.message, field: "" };
  const field = fault.field.replace(/^(strikes|balls)\.\d+\.?/, "");
  return { message: `${named(field)} ${fault.message}`.trim(), field };
}

/** Tell the server of an act. */
export async function perform(fitting_id: string, act: Act) {
  const signal = lost();
  if (act.kind === "take") {
    const body = { strikes: [act.strike], wedges: act.wedges ? [...act.wedges] : null };
    await unwrap(api.POST("/api/fittings/{fitting_id}/strikes", { params: { path: { fitting_id } }, body, signal }));
    return;
  }
  if (act.kind === "ball" || act.kind === "ball_tell" || act.kind === "feel")
    return performProof(fitting_id, act, signal);
  if (act.kind === "tick") {
    const { order: order_id, club, operation, done } = act;
    const params = { path: { fitting_id, order_id } };
    const body = { club, operation, done };
    await unwrap(api.PUT("/api/fittings/{fitting_id}/build/orders/{order_id}/ticks", { params, body, signal }));
    return;
  }
  const params = { path: { fitting_id, strike_id: act.id } };
  if (act.kind === "undo")
    await unwrap(api.DELETE("/api/fittings/{fitting_id}/strikes/{strike_id}", { params, signal }));
  else if (act.kind === "back")
    await unwrap(api.POST("/api/fittings/{fitting_id}/strikes/{strike_id}/back", { params, signal }));
  else {
    const body = act.noteWas === undefined ? act.changes : { ...act.changes, note_was: act.noteWas };
    await unwrap(api.PATCH("/api/fittings/{fitting_id}/strikes/{strike_id}", { params, body, signal }));
  }
}

/** Tell the server of an act of a proof. */
async function performProof(fitting_id: string, act: Extract<Act, { proof: string }>, signal: AbortSignal) {
  const path = { fitting_id, proof_id: act.proof };
  if (act.kind === "ball")
    await unwrap(
      api.POST("/api/fittings/{fitting_id}/proofs/{proof_id}/balls", {
        params: { path },
        body: { balls: [act.ball] },
        signal,
      }),
    );
  else if (act.kind === "feel")
    await unwrap(
      api.PUT("/api/fittings/{fitting_id}/proofs/{proof_id}/feel", {
        params: { path },
        body: { block: act.block, value: act.value },
        signal,
      }),
    );
  else
    await unwrap(
      api.PATCH("/api/fittings/{fitting_id}/proofs/{proof_id}/balls/{ball_id}", {
        params: { path: { ...path, ball_id: act.id } },
        body: act.changes,
        signal,
      }),
    );
}

/** The strikes as they will be once everything that is ahead of the server's answer is in it. */
export function withAhead(strikes: readonly Strike[], ahead: readonly Act[]): Strike[] {
  const found = new Map(strikes.map((strike) => [strike.id, strike]));
  const out = new Map<string, Strike>();
  for (const act of ahead) {
    if (act.kind === "take") found.set(act.strike.id, found.get(act.strike.id) ?? act.strike);
    else if (act.kind === "undo") {
      const strike = found.get(act.id);
      if (strike) out.set(act.id, strike);
      found.delete(act.id);
    } else if (act.kind === "back") {
      const strike = out.get(act.id);
      if (strike) found.set(act.id, strike);
    } else if (act.kind === "tell") {
      const strike = found.get(act.id);
      if (strike) found.set(act.id, { ...strike, ...act.changes });
    }
  }
  return [...found.values()];
}
