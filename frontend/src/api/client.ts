import createClient, { type Middleware } from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Fitting = Schemas["FittingOut"];
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
export type Session = Schemas["SessionOut"];
export type Units = Schemas["UnitsIO"];
export type Fault = Schemas["FaultOut"];
export type ApiError = Schemas["ErrorOut"];
export type Estimate = Schemas["LeanEstimate"];

/** An answer of the server that is not a success, or no answer at all (status 0). */
export class RequestError extends Error {
  readonly status: number;
  readonly body: ApiError | null;

  constructor(status: number, body: ApiError | null) {
    super(body?.message ?? "The server does not answer. What you typed stays here.");
    this.status = status;
    this.body = body;
  }
}

let csrfToken = "";

/** The token that every change must carry; it changes at sign-in. */
export function rememberToken(token: string) {
  csrfToken = token;
}

const carryToken: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRF-Token", csrfToken);
    return request;
  },
};

// looked up at every call, so that a test can stand in for the network
export const api = createClient<paths>({ baseUrl: window.location.origin, fetch: (request) => fetch(request) });
api.use(carryToken);

type Reply<T> = { data?: T; error?: unknown; response: Response };

/** The data of a reply, or a `RequestError`. */
export async function unwrap<T>(reply: Promise<Reply<T>>): Promise<T> {
  let result: Reply<T>;
  try {
    result = await reply;
  } catch {
    throw new RequestError(0, null);
  }
  if (!result.response.ok) throw new RequestError(result.response.status, (result.error as ApiError) ?? null);
  return result.data as T;
}

/** Send a fitting document from a file, as it is: the server says what is wrong with it. */
export function importDocument(text: string): Promise<Fitting> {
  return sendFile("/api/fittings/import", new Blob([text], { type: "application/json" }));
}

/** Send a whole file as the body of a request. */
export async function sendFile<T>(address: string, file: Blob): Promise<T> {
  const send = fetch(address, {
    method: "POST",
    body: file,
    headers: { "Content-Type": file.type || "application/octet-stream", "X-CSRF-Token": csrfToken },
  });
  const response = await send.catch(() => {
    throw new RequestError(0, null);
  });
  const body = await response.json().catch(() => null);
  if (!response.ok) throw new RequestError(response.status, body as ApiError | null);
  return body as T;
}
