import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { Carries, CarriesAsked } from "../../api/client";
import { UnitsProvider } from "../../app/context";
import { server, show } from "../../testing/show";
import { Conditions } from "./Conditions";
import { Finder } from "./Finder";
import { PasteBox } from "./PasteBox";

const onChange = vi.fn();
beforeEach(() => onChange.mockClear());
const cell = (club: string, swing: string, carry_m: number) => ({
  club, swing, loft_deg: 54, name: `club ${club}`, swing_name: swing, carry_m, spread_m: 3, total_m: carry_m + 2,
}); // biome-ignore format: one line a few things
const shot = (club: string, swing: string) => ({
  club, swing, loft_deg: 54, reasons: "stops soonest", against_first: "0.4 m farther off", miss_m: 4, on_green: 0.6,
}); // biome-ignore format: one line a few things
const CARRIES = {
  cells: [cell("a", "full", 80), cell("b", "9:00", 60), cell("c", "10:30", 66)],
  found: [shot("c", "10:30"), shot("b", "9:00"), shot("a", "full")],
} as unknown as Carries;
const ASKED = { distance_m: 64, pin: "middle" } as CarriesAsked;
const finder = (asked: object = {}, carries = CARRIES, units = { distance: "m", speed: "mps" }) =>
  show(
    <UnitsProvider value={units as Parameters<typeof UnitsProvider>[0]["value"]}>
      <Finder carries={carries} asked={{ ...ASKED, ...asked }} onChange={onChange} onFocus={vi.fn()} />
    </UnitsProvider>,
  );
const far = () => screen.getByLabelText("How far is it?") as HTMLInputElement;

it("a distance is asked for in the reader's unit; one that no wedge reaches is said and not asked", () => {
  finder({}, CARRIES, { distance: "yd", speed: "mph" });
  expect(far().value).toBe("70");
  fireEvent.change(far(), { target: { value: "100" } });
  expect(onChange.mock.lastCall?.[0].distance_m).toBeCloseTo(91.44, 2);
  onChange.mockClear();
  fireEvent.change(far(), { target: { value: "400" } });
  expect(onChange).not.toHaveBeenCalled();
  expect(screen.getByText("5.47 to 196.8 yd")).toBeTruthy();
  fireEvent.change(far(), { target: { value: "" } });
  expect(onChange).toHaveBeenLastCalledWith({ distance_m: null });
});

it("the first shot, the one instead, and all of them in a table", () => {
  finder();
  expect(screen.getByText("first").parentElement?.textContent).toContain("club c, 10:30");
  expect(screen.getByText("first").parentElement?.textContent).toContain("Stops soonest.");
  expect(screen.getByText("instead").parentElement?.textContent).toContain("0.4 m farther off; stops soonest.");
  const rows = within(screen.getByRole("table")).getAllByRole("row");
  expect(rows).toHaveLength(4);
  expect(rows[1]?.textContent).toContain("66.0");
  expect(rows[1]?.textContent).toContain("60\u00a0%");
});

it("without a distance it teaches, and a shot whose cell is gone is left out", () => {
  finder({ distance_m: null }, { ...CARRIES, found: [] } as Carries);
  expect(screen.getByText(/Type a distance, or press the ruler/)).toBeTruthy();
  cleanup();
  finder({}, { ...CARRIES, found: [shot("gone", "full"), shot("a", "full")] } as unknown as Carries);
  expect(screen.getByText("first").parentElement?.textContent).toContain("club a, full");
  expect(screen.queryByText("instead")).toBeNull();
});

const asked = (body: string) =>
  JSON.parse(body) as { paste_id: string; take: boolean; unit: string; sure_of_unit: boolean };
const strikes = [{ carry_m: 91.44 }, { carry_m: 82.3 }];

it("pasted strikes are looked at first, then taken, and the box is free for others", async () => {
  const sent = server({ "POST strikes/paste": { strikes, taken: 0, question: null } });
  show(<PasteBox cell={null} />);
  const box = screen.getByLabelText("Paste from a spreadsheet") as HTMLTextAreaElement;
  fireEvent.change(box, { target: { value: "91.4\n82.3" } });
  fireEvent.click(screen.getByRole("button", { name: "Look at it" }));
  expect(await screen.findByText("reads as 2 strikes: 91.4, 82.3 m")).toBeTruthy();
  expect(box.value).toBe("91.4\n82.3");
  const again = server({ "POST strikes/paste": { strikes, taken: 2, question: null } });
  fireEvent.click(screen.getByRole("button", { name: "Take strikes" }));
  expect(await screen.findByText("2 taken")).toBeTruthy();
  expect(box.value).toBe("");
  const [looked, taken] = [asked(sent[0]?.body ?? ""), asked(again[0]?.body ?? "")];
  expect([looked.take, taken.take]).toEqual([false, true]);
  expect(taken.paste_id).toBe(looked.paste_id);
});

it("a pasted strike without a carry is counted, and no carry told of it", async () => {
  server({ "POST strikes/paste": { strikes: [{ carry_m: null }, ...strikes], taken: 0, question: null } });
  show(<PasteBox cell={null} />);
  const box = screen.getByLabelText("Paste from a spreadsheet");
  fireEvent.change(box, { target: { value: "x" } });
  fireEvent.click(screen.getByRole("button", { name: "Look at it" }));
  expect(await screen.findByText("reads as 3 strikes: 91.4, 82.3 m")).toBeTruthy();
  server({ "POST strikes/paste": { strikes: [{ carry_m: null }], taken: 0, question: null } });
  fireEvent.click(screen.getByRole("button", { name: "Look at it" }));
  expect(await screen.findByText("reads as 1 strike")).toBeTruthy();
});

it("yards that look like metres are asked about, and what is answered is sent with the next look", async () => {
  const sent = server({ "POST strikes/paste": { strikes, taken: 0, question: "Are these yards?" } });
  show(<PasteBox cell={null} />);
  fireEvent.change(screen.getByLabelText("Paste from a spreadsheet"), { target: { value: "100" } });
  fireEvent.click(screen.getByRole("button", { name: "Take strikes" }));
  fireEvent.click(await screen.findByRole("button", { name: "No, they are right" }));
  fireEvent.click(screen.getByRole("button", { name: "Take strikes" }));
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(asked(sent[1]?.body ?? "")).toMatchObject({ unit: "m", sure_of_unit: true });
  cleanup();
  server({ "POST strikes/paste": { strikes, taken: 0, question: "Are these yards?" } });
  show(<PasteBox cell={null} />);
  fireEvent.change(screen.getByLabelText("Paste from a spreadsheet"), { target: { value: "100" } });
  fireEvent.click(screen.getByRole("button", { name: "Look at it" }));
  fireEvent.click(await screen.findByRole("button", { name: "Yes, in yards" }));
  expect((screen.getByLabelText("yards") as HTMLInputElement).checked).toBe(true);
});

it("what is pasted while the paste before is on its way stays, as another paste", async () => {
  let arrive: (found: object) => void = () => {};
  const sent = server({ "POST strikes/paste": new Promise((done) => (arrive = done)) });
  const { client } = show(<PasteBox cell={null} />);
  const box = screen.getByLabelText("Paste from a spreadsheet") as HTMLTextAreaElement;
  fireEvent.change(box, { target: { value: "91.4" } });
  fireEvent.click(screen.getByRole("button", { name: "Take strikes" }));
  await waitFor(() => expect(sent).toHaveLength(1));
  fireEvent.change(box, { target: { value: "82.3" } });
  arrive({ strikes, taken: 1, question: null });
  await waitFor(() => expect(client.isMutating()).toBe(0));
  expect(box.value).toBe("82.3");
  fireEvent.click(screen.getByRole("button", { name: "Take strikes" }));
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(asked(sent[1]?.body ?? "").paste_id).not.toBe(asked(sent[0]?.body ?? "").paste_id);
});

it("other text is another paste, and a line that cannot be read is named", async () => {
  server({});
  show(<PasteBox cell={null} />);
  const box = screen.getByLabelText("Paste from a spreadsheet");
  fireEvent.change(box, { target: { value: "far" } });
  fireEvent.click(screen.getByRole("button", { name: "Take strikes" }));
  expect((await screen.findByRole("alert")).textContent).toBeTruthy();
  fireEvent.change(box, { target: { value: "90" } });
  await waitFor(() => expect(screen.queryByRole("alert")).toBeNull());
});

it("height, wind and their limits are the reader's: an altitude is typed in yards by who reads yards", async () => {
  const asked = {
    wind_head_mps: 0,
    wind_cross_mps: 0,
    temperature_c: 20,
    altitude_m: 91.44,
    lie: "dry",
    green: "medium",
  };
  show(
    <UnitsProvider value={{ distance: "yd", speed: "mph" }}>
      <Conditions asked={asked as CarriesAsked} onChange={onChange} />
    </UnitsProvider>,
  );
  fireEvent.click(screen.getByRole("button", { name: /dry lie/ }));
  const altitude = (await screen.findByLabelText("Altitude")) as HTMLInputElement;
  expect(altitude.value).toBe("100");
  fireEvent.change(altitude, { target: { value: "200" } });
  expect(onChange.mock.lastCall?.[0].altitude_m).toBeCloseTo(182.88, 2);
  fireEvent.change(altitude, { target: { value: "5000" } });
  expect(screen.getByText("−470.2 to 4374.4 yd")).toBeTruthy();
  fireEvent.change(screen.getByLabelText("Wind against"), { target: { value: "60" } });
  expect(screen.getByText("−55.9 to 55.9 mph")).toBeTruthy();
  expect(onChange).toHaveBeenCalledTimes(1);
});
