import "fake-indexeddb/auto";
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { Session } from "../api/client";
import { SessionProvider } from "../session/session";
import { server, show } from "../testing/show";
import { type Act, forgetActs, keepAct, markAct, waitingActs } from "./actStore";
import { newStrike } from "./newStrike";
import { StrikeQueueProvider } from "./queue";
import { Refusals } from "./Refusals";
import { TakenOut } from "./TakenOut";

const FITTER = "me";
const did = vi.fn();
const BAG = {
  wedges: [{ name: "gap", loft_deg: 50 }],
  pitching_wedge_loft_deg: 46,
  nine_iron_loft_deg: 41,
  former: [],
};
const STORE = { server: { id: "f", document: { bag: BAG } }, did, onDeed: () => () => {} };
const session = { csrf_token: "t", fitter: "Me", fitter_id: FITTER, demo: false } as unknown as Session;
const page = (part: React.ReactNode) =>
  show(
    <SessionProvider session={session}>
      <StrikeQueueProvider>{part}</StrikeQueueProvider>
    </SessionProvider>,
    STORE,
  );

async function refused(act: Act, field: string, message: string) {
  await markAct(await keepAct(FITTER, "f", act), { field, message });
}

beforeEach(() => did.mockClear());
afterEach(async () => {
  await forgetActs(FITTER);
});

const strike = (id: string, change: object = {}) => ({ ...newStrike("own:0", 50, "full"), id, ...change });

it("a strike that was not taken says why, is mended in its place and sent under its own id", async () => {
  await refused({ kind: "take", strike: strike("s1", { carry_m: 900 }) }, "carry_m", "carry must be at most 400 m");
  const asked = server({ "POST strikes": {} });
  page(<Refusals />);
  const panel = await screen.findByRole("alert", { name: "Not taken" });
  expect(panel.textContent).toContain("1 not taken, kept here until it is mended or let go");
  expect(panel.textContent).toContain("A strike with the gap");
  expect(panel.textContent).toContain("carry must be at most 400 m");
  const again = within(panel).getByRole("button", { name: "Send again" });
  fireEvent.change(within(panel).getByLabelText("Mend carry m of s1"), { target: { value: "far" } });
  expect(again.hasAttribute("disabled")).toBe(true);
  fireEvent.change(within(panel).getByLabelText("Mend carry m of s1"), { target: { value: "90,5" } });
  fireEvent.click(again);
  await waitFor(() => expect(asked.some(({ line }) => line === "POST strikes")).toBe(true));
  const sent = JSON.parse(asked.find(({ line }) => line === "POST strikes")?.body ?? "{}").strikes[0];
  expect([sent.id, sent.carry_m]).toEqual(["s1", 90.5]);
  await waitFor(async () => expect(await waitingActs(FITTER, "f")).toEqual([]));
  expect(screen.queryByRole("alert", { name: "Not taken" })).toBeNull();
});

it("what is let go is gone from this browser, the others stay, each by what it was", async () => {
  await refused({ kind: "tell", id: "s1", changes: { note: "x" } }, "note", "note is too long");
  await refused({ kind: "undo", id: "s2" }, "", "the fitting is closed");
  server({});
  page(<Refusals />);
  const panel = await screen.findByRole("alert", { name: "Not taken" });
  expect(panel.textContent).toContain("2 not taken, kept here until they are mended or let go");
  const [told, undone] = within(panel).getAllByRole("listitem") as [HTMLElement, HTMLElement];
  expect(told.textContent).toContain("What was said of a strike");
  expect((within(told).getByRole("textbox") as HTMLInputElement).value).toBe("x");
  expect(undone.textContent).toContain("Taking out a strike");
  expect(within(undone).queryByRole("textbox")).toBeNull();
  fireEvent.click(within(told).getByRole("button", { name: "Let go" }));
  await waitFor(async () => expect((await waitingActs(FITTER, "f")).map((one) => one.act.kind)).toEqual(["undo"]));
  expect(within(panel).getAllByRole("listitem")).toHaveLength(1);
});

it("nothing refused, nothing shown", async () => {
  server({});
  page(<Refusals />);
  await new Promise((done) => setTimeout(done, 20));
  expect(screen.queryByRole("alert")).toBeNull();
});

it("strikes taken out are looked for when they are asked for, and one is put back with its deed", async () => {
  const asked = server({ "GET strikes/out": { strikes: [strike("s1", { carry_m: 80 })] }, "POST strikes/s1/back": {} });
  page(<TakenOut told={(one) => `${one.carry_m} m`} />);
  await new Promise((done) => setTimeout(done, 20));
  expect(asked).toEqual([]);
  const details = screen.getByText("Strikes taken out").closest("details") as HTMLDetailsElement;
  details.open = true;
  fireEvent(details, new Event("toggle"));
  expect(await screen.findByText("80 m")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Put back" }));
  expect(did).toHaveBeenCalledWith({ kind: "strike", id: "s1", out: false });
  await waitFor(() => expect(asked.some(({ line }) => line === "POST strikes/s1/back")).toBe(true));
});
