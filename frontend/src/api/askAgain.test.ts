import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { expect, it, vi } from "vitest";
import { askAgain } from "./askAgain";

it("takes no answer that was on its way when something changed, not even the first", async () => {
  const client = new QueryClient({
    defaultOptions: { queries: { staleTime: Number.POSITIVE_INFINITY, retry: false } },
  });
  const answers: ((value: string) => void)[] = [];
  const queryFn = vi.fn(() => new Promise<string>((done) => answers.push(done)));
  const observer = new QueryObserver(client, { queryKey: ["carries", "f", "key"], queryFn });
  const stop = observer.subscribe(() => {});
  expect(queryFn).toHaveBeenCalledTimes(1);
  const asked = askAgain(client, ["carries", "session"], "f");
  await vi.waitFor(() => expect(queryFn).toHaveBeenCalledTimes(2));
  answers[0]?.("made before the change");
  answers[1]?.("made after it");
  await asked;
  expect(observer.getCurrentResult().data).toBe("made after it");
  stop();
});

it("waits for who asked again meanwhile, and tells of an answer that never came", async () => {
  const client = new QueryClient({
    defaultOptions: { queries: { staleTime: Number.POSITIVE_INFINITY, retry: false } },
  });
  const answers: { done: (value: string) => void; fail: (why: Error) => void }[] = [];
  const queryFn = vi.fn(() => new Promise<string>((done, fail) => answers.push({ done, fail })));
  const observer = new QueryObserver(client, { queryKey: ["session", "f"], queryFn });
  const stop = observer.subscribe(() => {});
  answers[0]?.done("before");
  await vi.waitFor(() => expect(observer.getCurrentResult().data).toBe("before"));
  let ended = false;
  const first = askAgain(client, ["session"], "f").then((came) => {
    ended = true;
    return came;
  });
  await vi.waitFor(() => expect(queryFn).toHaveBeenCalledTimes(2));
  const other = askAgain(client, ["session"], "f");
  await vi.waitFor(() => expect(queryFn).toHaveBeenCalledTimes(3));
  await new Promise((done) => setTimeout(done, 80));
  expect(ended).toBe(false);
  answers[2]?.done("after");
  expect(await first).toBe(true);
  expect(await other).toBe(true);
  expect(observer.getCurrentResult().data).toBe("after");
  const lost = askAgain(client, ["session"], "f");
  await vi.waitFor(() => expect(queryFn).toHaveBeenCalledTimes(4));
  answers[3]?.fail(new Error("no answer"));
  expect(await lost).toBe(false);
  stop();
});
