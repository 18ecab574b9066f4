import { act, cleanup, renderHook, screen } from "@testing-library/react";
import type { ReactNode } from "react";
import { beforeEach, expect, it, vi } from "vitest";
import type { Fitting, Session } from "../api/client";
import { NoProposal } from "../steps/parts/NoProposal";
import { show } from "../testing/show";
import type { FittingStore, SaveState } from "./useFitting";
import { useWholeRack } from "./useWholeRack";

vi.mock("../session/session", () => ({ useStanding: () => standing }));
let standing: { session: Session | null; ended: object | null };

const NONE = { revision: 3, to_come: true, recommendation: null } as unknown as Fitting;
const near = (revision: number) =>
  ({ revision, to_come: false, recommendation: { whole_rack: false } }) as unknown as Fitting;
const WHOLE = { revision: 3, to_come: false, recommendation: { whole_rack: true } } as unknown as Fitting;

beforeEach(() => {
  standing = { session: null, ended: null };
  vi.useFakeTimers();
});
function page(server: Fitting, reload: FittingStore["reload"], saveState: SaveState = "saved") {
  const around = ({ children }: { children: ReactNode }) => children;
  return renderHook((now: { server: Fitting; saveState: SaveState }) => useWholeRack({ ...now, reload }), {
    initialProps: { server, saveState },
    wrapper: around,
  });
}
const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

it("a set that is to come, or is among near clubs, is asked for at once and put away by the next edit; a whole one never", async () => {
  const asked: (AbortSignal | undefined)[] = [];
  const reload = vi.fn((_?: number, signal?: AbortSignal) => new Promise<void>(() => void asked.push(signal)));
  const { rerender } = page(NONE, reload);
  await pass(1);
  rerender({ server: near(4), saveState: "saved" });
  await pass(1);
  rerender({ server: near(4), saveState: "saving" });
  await pass(1);
  rerender({ server: near(5), saveState: "saved" });
  await pass(1);
  expect(asked.map((signal) => signal?.aborted)).toEqual([true, true, false]);
  rerender({ server: WHOLE, saveState: "saved" });
  await pass(10_000);
  expect(reload).toHaveBeenCalledTimes(3);
});

it("a field that is to be mended or chosen does not keep the whole rack's answer away", async () => {
  for (const state of ["refused", "conflict"] as const) {
    const reload = vi.fn(async () => {});
    const { rerender, unmount } = page(near(4), reload, "saving");
    await pass(10);
    expect(reload).not.toHaveBeenCalled();
    rerender({ server: near(5), saveState: state });
    await pass(10);
    expect(reload).toHaveBeenCalledTimes(1);
    unmount();
  }
});

it("nothing is asked while an edit is on its way or nobody is signed in", async () => {
  const reload = vi.fn(async () => {});
  const { rerender } = page(NONE, reload, "saving");
  await pass(1000);
  standing = { session: null, ended: {} };
  rerender({ server: NONE, saveState: "saved" });
  await pass(1000);
  expect(reload).not.toHaveBeenCalled();
});

it("what has no answer is asked again, and is said so until one comes", async () => {
  const reload = vi.fn<() => Promise<void>>().mockRejectedValueOnce(new Error("no answer")).mockResolvedValue();
  const { result, rerender } = page(NONE, reload);
  await pass(1);
  expect(result.current).toBe(true);
  await pass(2900);
  expect(reload).toHaveBeenCalledTimes(1);
  await pass(200);
  expect(reload).toHaveBeenCalledTimes(2);
  rerender({ server: WHOLE, saveState: "saved" });
  expect(result.current).toBe(false);
});

it("a step says that the set is being worked out, that the server is silent, or what is missing", () => {
  const problem = [{ field: "bag", message: "leaves no room for a wedge" }];
  const said = (server: object, unheard = false) => {
    cleanup();
    show(<NoProposal title="Lofts" />, { server: { problem: [], ...server }, unheard });
  };
  said({ to_come: true });
  expect(screen.getByRole("status").textContent).toBe("Working out the set …");
  said({ to_come: true }, true);
  expect(screen.getByRole("status").textContent).toBe("No set came from the server. It is asked for again.");
  said({ to_come: false, problem });
  expect(screen.getByRole("alert").textContent).toContain("leaves no room for a wedge");
});

it("an answer that an edit has made old is not waited for", async () => {
  const asked: (AbortSignal | undefined)[] = [];
  const reload = vi.fn((_?: number, signal?: AbortSignal) => {
    asked.push(signal);
    return new Promise<void>((_, no) => signal?.addEventListener("abort", () => no(new Error("put away"))));
  });
  const { result, rerender } = page(NONE, reload);
  await pass(1);
  rerender({ server: NONE, saveState: "waiting" });
  await pass(10_000);
  expect(asked.map((signal) => signal?.aborted)).toEqual([true]);
  expect(result.current).toBe(false);
  rerender({ server: near(4), saveState: "saved" });
  await pass(400);
  expect(asked.map((signal) => signal?.aborted)).toEqual([true, false]);
});
