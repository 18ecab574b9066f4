import { expect, it } from "vitest";
import { lastFailure } from "./lastFailure";

const act = (submittedAt: number, error: string | null = null) => ({
  submittedAt,
  error: error === null ? null : new Error(error),
});

it("only the act that was begun last is told of, and nothing once one went through", () => {
  expect(lastFailure(act(0), act(0))).toBeNull();
  expect(lastFailure(act(0), act(5, "no room"))?.message).toBe("no room");
  expect(lastFailure(act(4, "older"), act(5, "newer"), act(0))?.message).toBe("newer");
  expect(lastFailure(act(6, "newer"), act(5, "older"))?.message).toBe("newer");
  expect(lastFailure(act(4, "older"), act(5))).toBeNull();
});
