import createClient from "openapi-fetch";
import { hearProgram } from "./program";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Fitting = Schemas["FittingOut"];
export type Edited = Schemas["EditedOut"];
export type Conflict = Schemas["ConflictOut"];
export type FittingDocument = Schemas["FittingDocument"];
export type Player = Schemas["PlayerDocument"];
export type Ground = Schemas["GroundDocument"];
export type Bag = Schemas["BagDocument"];
export type Choices = Schemas["ChoicesDocument"];
export type OwnedWedge = Schemas["OwnedWedgeDocument"];
export type RackHead = Schemas["RackHeadDocument"];
export type Head = Schemas["HeadDocument"];
export type Recommendation = Schemas["RecommendationOut"];
export type Club = Schemas["ClubOut"];
export type Candidate = Schemas["CandidateOut"];
export type Rung = Schemas["RungOut"];
export type Ladder = Schemas["LadderOut"];
export type Scenario = Schemas["ScenarioOut"];
export type Carries = Schemas["CarriesOut"];
export type CarriesAsked = Required<Schemas["CarriesIn"]>;
export type Cell = Schemas["CellOut"];
export type SessionSummary = Schemas["SessionSummaryOut"];
export type Strike = Schemas["StrikeDocument"];
export type KeptLine = Schemas["KeptLine"];
export type Kept = Schemas["KeptOut"];
export type Build = Schemas["BuildOut"];
export type Card = Schemas["CardOut"];
export type Proof = Schemas["ProofOut"];
export type ProofBall = Schemas["ProofBall"];
export type Session = Schemas["SessionOut"];
export type Units = Schemas["UnitsIO"];
export type Fault = Schemas["FaultOut"];
export type ApiError = Schemas["ErrorOut"];
export type Estimate = Schemas["LeanEstimate"];

/** Nothing answered: there is no connection. */
export const NO_ANSWER = 0;
/** Something answered that is not our server: a page of a proxy, say. */
export const NOT_OURS = -1;

const WORDS: Record<number, string> = {
  [NO_ANSWER]: "No answer came from the server. What you typed stays here.",
  [NOT_OURS]: "Something answered in the server's place. What you typed stays here.",
};

/** An answer of the server that is not a success, or no answer at all. */
export class RequestError extends Error {
  readonly status: number;
  readonly body: ApiError | null;
  /** Seconds after which the server wants to be asked again, if it said so. */
  readonly after: number | null;

  constructor(status: number, body: ApiError | null, after: number | null = null) {
    super(body?.message ?? WORDS[status] ?? "The server could not do that now. What you typed stays here.");
    this.status = status;
    this.body = body;
    this.after = after;
  }

  /** The server looked at it and refuses it for good: asking again changes nothing. */
  get refused() {
    return (this.status === 422 || this.status === 404) && this.body !== null;
  }
}

interface Identity {
  token: string;
  fitter: string | null;
}

let me: Identity = { token: "", fitter: null };
let tellOfEnd: (code: "signed_out" | "other_fitter") => void = () => {};

/** For whom this page acts, and the token that every change must carry. */
export function become(identity: Identity) {
  me = identity;
}

/** Who hears that the session has ended, or that somebody else has signed in on this browser. */
export function onSessionEnd(hear: typeof tellOfEnd) {
  tellOfEnd = hear;
}

/** Longer than this no answer is waited for: the line is gone and nothing says so. A large file may be on its way longer. */
const LOST_MS = 120_000;
const LOST_FILE_MS = 600_000;

/** For what is sent again until it is answered: gives up on a line that is lost without a word. */
export const lost = () => AbortSignal.timeout(LOST_MS);

async function codeOf(response: Response): Promise<string | null> {
  const body = (await response
    .clone()
    .json()
    .catch(() => null)) as ApiError | null;
  return body?.code ?? null;
}

/** How the session ended, if that is what an answer says. */
async function endOf(response: Response) {
  const code = response.status === 401 ? await codeOf(response) : null;
  return code === "signed_out" || code === "other_fitter" ? code : null;
}

/**
 * Send a request, before the caller goes on. A token that another tab made stale is fetched anew, once; the end of the
 * session is told. One that is answered as nobody's, though the fitter signed in again while it was on its way, is sent
 * again: that answer is of before.
 */
async function send(request: Request): Promise<Response> {
  const asked = me;
  if (request.method !== "GET") request.headers.set("X-CSRF-Token", me.token);
  if (me.fitter) request.headers.set("X-Oblatus-Fitter", me.fitter);
  const copy = request.clone();
  // one that is never answered would hold up all that wait for it
  const limit = AbortSignal.timeout(request.method === "GET" ? LOST_MS : LOST_FILE_MS);
  const signal = AbortSignal.any([request.signal, limit]);
  const again = () => {
    const next = copy.clone();
    if (next.method !== "GET") next.headers.set("X-CSRF-Token", me.token);
    return fetch(next, { signal });
  };
  let response = await fetch(request, { signal });
  if (response.status === 400 && me.fitter && (await codeOf(response)) === "csrf") {
    const answer = await fetch(new Request(`${window.location.origin}/api/session`), { signal });
    const session = answer.ok ? ((await answer.json()) as Session) : null;
    if (session && session.fitter_id !== me.fitter) {
      const code = session.fitter_id ? "other_fitter" : "signed_out";
      tellOfEnd(code);
      return Response.json({ code, message: ENDED, faults: [] }, { status: 401 });
    }
    if (session) {
      me = { ...me, token: session.csrf_token };
      response = await again();
    }
  }
  if ((await endOf(response)) && me.token !== asked.token && me.fitter === asked.fitter) response = await again();
  const end = await endOf(response);
  if (end) tellOfEnd(end);
  hearProgram(response);
  return response;
}

const ENDED = "You are signed out. What you did stays here.";

// looked up at every call, so that a test can stand in for the network
export const api = createClient<paths>({
  // Chromium has a request wait for one that is under way to the same address, to look whether its answer can be kept
  cache: "no-store",
  baseUrl: window.location.origin,
  fetch: send,
});

type Reply<T> = { data?: T; error?: unknown; response: Response };

function errorOf(response: Response, body: unknown): RequestError {
  const ours = typeof body === "object" && body !== null && "code" in body ? (body as ApiError) : null;
  const after = Number(response.headers.get("Retry-After"));
  return new RequestError(response.status, ours, Number.isFinite(after) && after > 0 ? after : null);
}

/** The data of a reply, or a `RequestError`. */
export async function unwrap<T>(reply: Promise<Reply<T>>): Promise<T> {
  let result: Reply<T>;
  try {
    result = await reply;
  } catch (error) {
    throw new RequestError(error instanceof SyntaxError ? NOT_OURS : NO_ANSWER, null);
  }
  if (!result.response.ok) throw errorOf(result.response, result.error);
  return result.data as T;
}

/** Sign in. It is asked as nobody: whoever this page belongs to stays who they are until the answer is there. */
export async function signIn(body: Schemas["SignInIn"]): Promise<Session> {
  const ask = (method: string, token: string, content?: object) =>
    fetch(
      new Request(`${window.location.origin}/api/session`, {
        method,
        headers: { "Content-Type": "application/json", "X-CSRF-Token": token },
        body: content ? JSON.stringify(content) : undefined,
      }),
    ).catch(() => {
      throw new RequestError(NO_ANSWER, null);
    });
  const read = async (response: Response) => {
    const found = await response.json().catch(() => null);
    if (!response.ok) throw errorOf(response, found);
    if (found === null) throw new RequestError(NOT_OURS, null);
    return found as Session;
  };
  const open = await read(await ask("GET", ""));
  return read(await ask("POST", open.csrf_token, body));
}

/** Send a fitting document from a file, as it is: the server says what is wrong with it. */
export function importDocument(text: string, id: string): Promise<Fitting> {
  return sendFile(`/api/fittings/import?id=${id}`, new Blob([text], { type: "application/json" }));
}

/** Send a whole file as the body of a request. */
export async function sendFile<T>(address: string, file: Blob): Promise<T> {
  const headers: Record<string, string> = {
    "Content-Type": file.type || "application/octet-stream",
    "X-CSRF-Token": me.token,
  };
  if (me.fitter) headers["X-Oblatus-Fitter"] = me.fitter;
  const request = new Request(new URL(address, window.location.origin), { method: "POST", body: file, headers });
  const response = await send(request).catch(() => {
    throw new RequestError(NO_ANSWER, null);
  });
  const body = await response.json().catch(() => null);
  if (!response.ok) throw errorOf(response, body);
  if (body === null) throw new RequestError(NOT_OURS, null);
  return body as T;
}
