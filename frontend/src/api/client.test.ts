import { beforeEach, expect, it, vi } from "vitest";
import { api, become, NO_ANSWER, NOT_OURS, onSessionEnd, RequestError, signIn, unwrap } from "./client";

const asked: { method: string; path: string; token: string | null; fitter: string | null }[] = [];
let answers: (() => Response)[] = [];
const ended = vi.fn();

const json = (body: object, status = 200, headers: Record<string, string> = {}) =>
  new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json", ...headers } });
const refusal = (code: string, status: number) => json({ code, message: code, faults: [] }, status);
const session = (fitter_id: string | null) => json({ csrf_token: "fresh", fitter_id });

beforeEach(() => {
  asked.length = 0;
  answers = [];
  ended.mockClear();
  become({ token: "stale", fitter: "me" });
  onSessionEnd(ended);
  vi.stubGlobal("fetch", async (request: Request) => {
    const { headers } = request;
    const path = new URL(request.url).pathname;
    const token = headers.get("X-CSRF-Token");
    asked.push({ method: request.method, path, token, fitter: headers.get("X-Oblatus-Fitter") });
    const next = answers.shift();
    if (!next) throw new TypeError("no network");
    return next();
  });
});
const change = () => unwrap(api.POST("/api/fittings", { body: { player_name: "A" } }));
const failing = async (act: () => Promise<unknown>) => {
  const error = await act().catch((found: unknown) => found);
  if (!(error instanceof RequestError)) throw new Error("it did not fail");
  return error;
};

it("says on every request for whom the page was made", async () => {
  answers.push(() => json({ id: "f" }));
  await change();
  expect(asked).toEqual([{ method: "POST", path: "/api/fittings", token: "stale", fitter: "me" }]);
});

it("fetches another token when the fitter signed in again elsewhere, and sends the same once more", async () => {
  answers.push(
    () => refusal("csrf", 400),
    () => session("me"),
    () => json({ id: "f" }),
  );
  await change();
  expect(asked.map((one) => one.token)).toEqual(["stale", null, "fresh"]);
  expect(ended).not.toHaveBeenCalled();
});

it.each([
  [null, "signed_out"],
  ["somebody else", "other_fitter"],
])("sends nothing as %s", async (who, code) => {
  answers.push(
    () => refusal("csrf", 400),
    () => session(who),
  );
  const error = await failing(change);
  expect(error.status).toBe(401);
  expect(ended).toHaveBeenCalledWith(code);
  expect(asked).toHaveLength(2);
});

it("tells of a session that ended, and not of a wrong password", async () => {
  answers.push(() => refusal("signed_out", 401));
  await failing(change);
  expect(ended).toHaveBeenCalledWith("signed_out");
  ended.mockClear();
  answers.push(
    () => session(null),
    () => refusal("sign_in", 401),
  );
  await failing(() => signIn({ email: "a", password: "b" }));
  expect(ended).not.toHaveBeenCalled();
});

it("an answer of before the fitter signed in again ends nothing: the same is sent once more", async () => {
  const signedInMeanwhile = () => {
    become({ token: "new", fitter: "me" });
    return refusal("signed_out", 401);
  };
  answers.push(signedInMeanwhile, () => json({ id: "f" }));
  await change();
  expect(asked.map((one) => one.token)).toEqual(["stale", "new"]);
  expect(ended).not.toHaveBeenCalled();
  become({ token: "stale", fitter: "me" });
  answers.push(signedInMeanwhile, () => refusal("signed_out", 401));
  expect((await failing(change)).status).toBe(401);
  expect(ended).toHaveBeenCalledExactlyOnceWith("signed_out");
  answers.push(() => {
    become({ token: "theirs", fitter: "somebody else" });
    return refusal("signed_out", 401);
  });
  await failing(change);
  expect(ended, "nothing is sent again as another").toHaveBeenCalledTimes(2);
});

it("asks as nobody when it signs in, and the page stays whose it is", async () => {
  answers.push(
    () => session("somebody else"),
    () => refusal("sign_in", 401),
  );
  await failing(() => signIn({ email: "a", password: "b" }));
  expect(asked.map((one) => one.fitter)).toEqual([null, null]);
  answers.push(() => json({}));
  await change();
  expect(asked.at(-1)).toMatchObject({ token: "stale", fitter: "me" });
});

it("tells no connection, a proxy's page and a refusal apart", async () => {
  expect((await failing(change)).status).toBe(NO_ANSWER);
  answers.push(() => new Response("<html>", { status: 200, headers: { "Content-Type": "application/json" } }));
  expect((await failing(change)).status).toBe(NOT_OURS);
  answers.push(() => new Response("<html>", { status: 502 }));
  const proxy = await failing(change);
  expect([proxy.status, proxy.refused]).toEqual([502, false]);
  answers.push(() => new Response("<html>", { status: 404 }));
  expect((await failing(change)).refused).toBe(false);
  answers.push(() => refusal("invalid", 422));
  expect((await failing(change)).refused).toBe(true);
  answers.push(() => json({ code: "too_many", message: "", faults: [] }, 429, { "Retry-After": "7" }));
  expect((await failing(change)).after).toBe(7);
});

it("what is never answered on a line that is lost without a word is given up", async () => {
  const limits: [number, AbortController][] = [];
  const timeout = vi.spyOn(AbortSignal, "timeout").mockImplementation((ms) => {
    const limit = new AbortController();
    limits.push([ms, limit]);
    return limit.signal;
  });
  vi.stubGlobal("fetch", (_: Request, { signal }: { signal: AbortSignal }) => {
    return new Promise((_done, no) => signal.addEventListener("abort", () => no(signal.reason)));
  });
  const errors = [failing(() => unwrap(api.GET("/api/fittings"))), failing(change)];
  await vi.waitFor(() => expect(limits.map(([ms]) => ms)).toEqual([120_000, 600_000]));
  for (const [, limit] of limits) limit.abort();
  expect((await Promise.all(errors)).map((error) => error.status)).toEqual([NO_ANSWER, NO_ANSWER]);
  timeout.mockRestore();
});
