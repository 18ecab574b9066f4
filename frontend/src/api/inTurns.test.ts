import { expect, it, vi } from "vitest";
import { inTurns } from "./inTurns";

const settle = () => new Promise((done) => setTimeout(done, 5));

it("is never under way twice, and is done once more for all who asked meanwhile", async () => {
  const answers: ((value: number) => void)[] = [];
  const act = vi.fn(() => new Promise<number>((done) => answers.push(done)));
  const ask = inTurns(act);
  const first = ask();
  const later = [ask(), ask(), ask()];
  await settle();
  expect(act).toHaveBeenCalledTimes(1);
  answers[0]?.(1);
  expect(await first).toBe(1);
  await settle();
  expect(act).toHaveBeenCalledTimes(2);
  answers[1]?.(2);
  expect(await Promise.all(later)).toEqual([2, 2, 2]);
  const last = ask();
  expect(act).toHaveBeenCalledTimes(3);
  answers[2]?.(3);
  expect(await last).toBe(3);
});

it("goes on after one that failed, which only those hear who asked for it", async () => {
  const answers: { done: (value: number) => void; fail: (why: Error) => void }[] = [];
  const ask = inTurns(() => new Promise<number>((done, fail) => answers.push({ done, fail })));
  const first = ask();
  const second = ask();
  answers[0]?.fail(new Error("no answer"));
  await expect(first).rejects.toThrow("no answer");
  await settle();
  answers[1]?.done(2);
  expect(await second).toBe(2);
});
