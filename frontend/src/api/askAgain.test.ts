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
