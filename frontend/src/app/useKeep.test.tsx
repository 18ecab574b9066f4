import { act, screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { server, show } from "../testing/show";
import { useKeep } from "./useKeep";

beforeEach(() => void vi.useFakeTimers({ shouldAdvanceTime: true }));
function Button() {
  const keep = useKeep();
  return (
    <button type="button" onClick={() => keep.mutate()}>
      {keep.error?.message ?? "keep"}
    </button>
  );
}

const NEAR = { id: "f", revision: 3, to_come: false, recommendation: { whole_rack: false } };
const kept = (fitting: object, saveState = "saved", goAfter = (_: Promise<unknown>) => {}) => {
  const asked = server({ "POST kept": {} });
  show(<Button />, { server: fitting, saveState, goAfter });
  act(() => screen.getByRole("button").click());
  return asked;
};

it("keeps what the whole rack says, at once", async () => {
  const asked = kept({ ...NEAR, recommendation: { whole_rack: true } });
  await waitFor(() => expect(asked.map(({ line }) => line)).toEqual(["POST kept"]));
  expect(JSON.parse(asked[0]?.body ?? "").revision).toBe(3);
});

it("an edit made since goes out after it: what is kept is what was on the screen", async () => {
  const ahead = vi.fn();
  kept({ ...NEAR, recommendation: { whole_rack: true } }, "saved", ahead);
  await waitFor(() => expect(ahead).toHaveBeenCalledOnce());
  await expect(ahead.mock.calls[0]?.[0]).resolves.toEqual({});
});

it.each([
  ["a set among near clubs", NEAR, "saved", "the whole rack is worked out"],
  ["no set yet", { ...NEAR, to_come: true, recommendation: null }, "saved", "the whole rack is worked out"],
  ["an edit on its way", NEAR, "saving", "everything is saved"],
])("%s is not kept: it is waited for, then said", async (_, fitting, saveState, words) => {
  const asked = kept(fitting, saveState);
  await act(() => vi.advanceTimersByTimeAsync(61_000));
  expect(screen.getByRole("button").textContent).toBe(`Wait until ${words}, then try again.`);
  expect(asked).toEqual([]);
});

it("without a connection nothing is waited for", async () => {
  kept(NEAR, "offline");
  await act(() => vi.advanceTimersByTimeAsync(100));
  expect(screen.getByRole("button").textContent).toContain("everything is saved");
});

it("what was kept without an answer is kept once: the same proposal is sent again under its id, by key or button", async () => {
  const ids: string[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    ids.push(((await request.json()) as { id: string }).id);
    if (ids.length === 1) throw new TypeError("no network");
    return new Response("{}", { headers: { "Content-Type": "application/json" } });
  });
  const two = (
    <>
      <Button />
      <Button />
    </>
  );
  show(two, { server: { ...NEAR, recommendation: { whole_rack: true } }, saveState: "saved" });
  for (const n of [0, 1, 1]) {
    act(() => screen.getAllByRole("button")[n]?.click());
    await act(() => vi.advanceTimersByTimeAsync(100));
  }
  expect(ids[0]).toBe(ids[1]);
  expect(new Set(ids).size).toBe(2); // pressed again on purpose, it is kept again
});
