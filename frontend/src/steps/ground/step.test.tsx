import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { TABLES } from "../../api/tables";
import { ground } from "../../testing/ground";
import { server, show } from "../../testing/show";
import GroundStep from "./GroundStep";

const edit = vi.fn();
beforeEach(() => {
  edit.mockClear();
  server({});
});

const step = (grounds: object[], faults: object[] = []) =>
  show(<GroundStep />, {
    server: { id: "f", thatch_mm: grounds.map(() => 2), readings: grounds.map(() => ({})), document: { grounds } },
    draft: { grounds },
    edit,
    faults,
  });
const put = () => edit.mock.lastCall?.[1] as { name: string; share: number; turf: Record<string, unknown> }[];
const sum = () => put().reduce((all, { share }) => all + share, 0);

it("a ground that is added takes its part of the golf from the others, and its figures are copied, not measured", () => {
  step([ground("home", 0.75), ground("ground 3", 0.25)]);
  fireEvent.click(screen.getByRole("button", { name: "Add a ground" }));
  expect(put().map(({ name, share }) => [name, share])).toEqual([
    ["home", 0.5],
    ["ground 3", expect.closeTo(1 / 6, 9)],
    ["ground 4", expect.closeTo(1 / 3, 9)],
  ]);
  expect(sum()).toBeCloseTo(1, 9);
  expect(put()[2]?.turf).toMatchObject({ firmness_source: "copied" });
  expect(put()[0]?.turf).toMatchObject({ firmness_source: "measured" });
});

it("what goes leaves its part to the others, in their proportion; the last one stays", async () => {
  step([ground("home", 0.5), ground("away", 0.3), ground("far", 0.2)]);
  fireEvent.click(await screen.findByRole("button", { name: "Remove this ground" }));
  expect(put().map(({ name, share }) => [name, share])).toEqual([
    ["away", expect.closeTo(0.6, 9)],
    ["far", expect.closeTo(0.4, 9)],
  ]);
  cleanup();
  step([ground("home", 0), ground("away", 0)]);
  fireEvent.click(await screen.findByRole("button", { name: "Remove this ground" }));
  expect(sum()).toBe(1);
  cleanup();
  step([ground("home", 1)]);
  await screen.findByLabelText("Name");
  expect(screen.queryByRole("button", { name: "Remove this ground" })).toBeNull();
});

it("shares that do not sum are said with their sum, and scaled at a press", () => {
  const faults = [{ field: "grounds", message: "the shares sum to 80 %, not 100", value: null }];
  step([ground("home", 0.6), ground("away", 0.2)], faults);
  expect(screen.getByText("shares sum to 80 %")).toBeTruthy();
  expect(screen.getByRole("alert").textContent).toBe("the shares sum to 80 %, not 100");
  fireEvent.click(screen.getByRole("button", { name: "Scale to 100 %" }));
  expect(put().map(({ share }) => share)).toEqual([expect.closeTo(0.75, 9), expect.closeTo(0.25, 9)]);
  cleanup();
  step([ground("home", 0), ground("away", 0)]);
  fireEvent.click(screen.getByRole("button", { name: "Scale to 100 %" }));
  expect(put().map(({ share }) => share)).toEqual([0.5, 0.5]);
  cleanup();
  step([ground("home", 1)]);
  expect(screen.getByRole("button", { name: "Scale to 100 %" }).hasAttribute("disabled")).toBe(true);
});

it("the ground that is pressed is the one that is edited", async () => {
  step([ground("home", 0.5), ground("away", 0.5)]);
  fireEvent.click(screen.getByRole("button", { name: /^away/ }));
  expect(((await screen.findByLabelText("Name")) as HTMLInputElement).value).toBe("away");
  const greens = within(screen.getByRole("radiogroup", { name: "Greens" }));
  fireEvent.click(greens.getByRole("radio", { name: TABLES.greens[1] }));
  expect(edit.mock.lastCall?.[1].map((one: { green: string }) => one.green)).toEqual([
    TABLES.greens[0],
    TABLES.greens[1],
  ]);
});
