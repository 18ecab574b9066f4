import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Build } from "../../api/client";
import { server, show } from "../../testing/show";
import { OrderPanel } from "./OrderPanel";
import { ticksAhead } from "./useBuild";

const { ahead } = vi.hoisted(() => ({ ahead: [] as object[] }));
vi.mock("../../strikes/queue", () => ({ useQueue: () => ({ ahead, tick: () => {} }) }));
vi.mock("../../strikes/StrikeList", () => ({ QueueState: () => null }));
afterEach(() => {
  ahead.length = 0;
});

const ORDER = {
  id: "o", made_by: "Ada", made_at: "2026-05-03T10:00:00", heads: ["Hanger 50"], changed: [], missing: [], off: 0,
  ticks: [{ club: 0, operation: "bend" }],
}; // biome-ignore format: an order in a few lines
const sheet = (change: object = {}) =>
  ({
    clubs: [{ name: "Hanger 50", action: "replace", operations: ["take", "bend"] }, { name: "old lob", action: "keep", operations: ["grip"] }],
    faults: [], earlier: [], order: null, ...change,
  }) as unknown as Build; // biome-ignore format: a sheet in a few lines
const panel = (change: object = {}, rack: object[] | null = null, answers: Record<string, unknown> = {}) => {
  const asked = server(answers);
  const refresh = vi.fn(async () => {});
  show(<OrderPanel sheet={sheet(change)} />, { server: { id: "f", revision: 3, document: { rack } }, saveState: "saved", refresh });
  return { asked, refresh };
}; // biome-ignore format: one line a call
const order = (change: object = {}) => ({ order: { ...ORDER, ...change } });
const button = (name: string) => screen.queryByRole("button", { name }) as HTMLButtonElement | null;

it("says what giving it to the bench takes from the rack", () => {
  panel();
  expect(screen.getByText("Takes Hanger 50 from the rack's stock.")).toBeTruthy();
  cleanup();
  panel({ clubs: [] });
  expect(screen.getByText("Takes nothing from the rack.")).toBeTruthy();
  cleanup();
  panel({}, [{}]);
  expect(screen.getByText("This fitting brings its own rack: nothing is taken from the studio's.")).toBeTruthy();
});

it("a sheet with a fault is not given to the bench and has no paper", () => {
  panel({ faults: [{ field: "build.clubs.0.bend_deg", message: "beyond its limit" }] });
  expect(button("Give it to the bench")?.disabled).toBe(true);
  expect(screen.queryByRole("link", { name: "PDF" })).toBeNull();
});

it("it is given with the revision that was saved; every fault of the answer is said", async () => {
  const { asked } = panel();
  vi.stubGlobal("fetch", async (request: Request) => {
    asked.push({ line: request.method, body: await request.text() });
    const faults = [{ field: "stock", message: "Hanger 50 is not on the shelf" }, { field: "stock", message: "Barrow 55 neither" }];
    return new Response(JSON.stringify({ code: "input", message: "no", faults }), { status: 400 });
  });
  fireEvent.click(button("Give it to the bench") as HTMLElement);
  await waitFor(() => expect(screen.getByRole("alert").textContent).toBe("Hanger 50 is not on the shelfBarrow 55 neither"));
  expect(JSON.parse(asked.find(({ line }) => line === "POST")?.body ?? "").revision).toBe(3);
}); // biome-ignore format: one line a call

it("work is counted with the ticks that are still on their way", () => {
  ahead.push({ kind: "tick", order: "o", club: 1, operation: "grip", done: true });
  panel(order());
  expect(screen.getByText("At the bench: 2 of 3 pieces of work done.")).toBeTruthy();
  expect(screen.getByText(/set aside from the rack: Hanger 50/)).toBeTruthy();
});

it("ticks ahead are put in once, taken out, and those of other orders left alone", () => {
  const tick = (club: number, operation: string, done: boolean, of = "o") => ({ kind: "tick", order: of, club, operation, done });
  const after = (...acts: object[]) => ticksAhead(ORDER as never, acts as never).map((one) => `${one.club}.${one.operation}`);
  expect(after(tick(0, "bend", true), tick(1, "grip", true))).toEqual(["0.bend", "1.grip"]);
  expect(after(tick(0, "bend", false))).toEqual([]);
  expect(after(tick(0, "bend", false), tick(0, "bend", true))).toEqual(["0.bend"]);
  expect(after(tick(1, "grip", true, "another"), { kind: "strike" })).toEqual(["0.bend"]);
}); // biome-ignore format: one line a call

it("cannot be signed while something is missing or has changed", () => {
  panel(order({ missing: ["Hanger 50: loft not read"] }));
  expect(button("Sign it as built")).toBeNull();
  expect(screen.getByRole("list", { name: "Missing before it can be signed" }).textContent).toContain("loft not read");
  cleanup();
  panel(order({ changed: ["The lob is bent 1° more"] }));
  expect(button("Sign it as built")).toBeNull();
  expect(button("Take the changes to the bench")?.disabled).toBe(false);
});

it("what lies outside tolerance wants a reason before it is signed", async () => {
  const { asked, refresh } = panel(order({ off: 2 }), null, { "POST ": {}, "PUT ": {} });
  expect(button("Sign it as built")?.disabled).toBe(true);
  fireEvent.change(screen.getByLabelText("2 readings are outside tolerance: why does it stay so?"), { target: { value: "  " } });
  expect(button("Sign it as built")?.disabled).toBe(true);
  fireEvent.change(screen.getByLabelText(/^2 readings/), { target: { value: "he likes it" } });
  fireEvent.click(button("Sign it as built") as HTMLElement);
  await waitFor(() => expect(refresh).toHaveBeenCalled());
  expect(JSON.parse(asked.find(({ body }) => body.includes("reason"))?.body ?? "")).toMatchObject({ reason: "he likes it", revision: 3 });
}); // biome-ignore format: one line a call

it("an order is cancelled only when it is said twice", async () => {
  const { asked, refresh } = panel(order(), null, { "DELETE ": null, "POST ": {} });
  fireEvent.click(button("Cancel the order …") as HTMLElement);
  fireEvent.click(button("Keep it") as HTMLElement);
  expect(asked).toEqual([]);
  fireEvent.click(button("Cancel the order …") as HTMLElement);
  fireEvent.click(button("Cancel the order") as HTMLElement);
  await waitFor(() => expect(refresh).toHaveBeenCalled());
  expect(asked[0]?.line).toContain("orders/o");
});

it("earlier orders keep their paper and what was left outside tolerance", () => {
  const earlier = { id: "e", state: "built", ended_at: "2026-05-09T16:00:00", ended_by: "Ada", clubs: ["Hanger 50", "old lob"], total: 212.5, reason: "he likes it" }; // biome-ignore format: one line
  panel({ earlier: [earlier, { ...earlier, id: "c", state: "cancelled", reason: "" }] });
  const lines = screen.getAllByRole("listitem").map((one) => one.textContent);
  expect(lines[0]).toBe("Signed 9 May 2026, 16:00 by Ada: Hanger 50, old lob; total 212.50. Outside tolerance and left so: he likes it. PDF");
  expect(lines[1]).toMatch(/^Cancelled 9 May 2026.*212\.50\. PDF$/);
}); // biome-ignore format: one line a call
