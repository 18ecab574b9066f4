import { fireEvent, screen, within } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { TABLES } from "../../api/tables";
import { show } from "../../testing/show";
import { DeliveryTable } from "./DeliveryTable";
import { ShotMix } from "./ShotMix";

const estimate = (mean: number, source: string, count: number | null) => ({ mean, spread: 1.5, source, count });
const DELIVERY = {
  attack_deg: estimate(-6, "measured", 20),
  lean_deg: estimate(5, "assumed", null),
  entry_mm: estimate(-34, "copied", 12),
  release: "square",
} as unknown as Parameters<typeof DeliveryTable>[0]["delivery"];
const field = (group: string, name: string) => within(screen.getByRole("group", { name: group })).getByLabelText(name);

it("a figure typed over a measured one is typed, and its strikes do not tell it any more", () => {
  const onChange = vi.fn();
  show(<DeliveryTable delivery={DELIVERY} onChange={onChange} />);
  fireEvent.change(field("Attack", "Attack, mean"), { target: { value: "-4,5" } });
  expect(onChange).toHaveBeenLastCalledWith({
    ...DELIVERY,
    attack_deg: { mean: -4.5, spread: 1.5, source: "typed", count: null },
  });
});

it("a count that was typed stays when another figure of it is typed", () => {
  const onChange = vi.fn();
  show(<DeliveryTable delivery={DELIVERY} onChange={onChange} />);
  fireEvent.change(field("Entry", "Entry, spread"), { target: { value: "12" } });
  expect(onChange.mock.lastCall?.[0].entry_mm).toEqual({ mean: -34, spread: 12, source: "typed", count: 12 });
});

it("text that is no number is said and not passed on; an empty count is none", () => {
  const onChange = vi.fn();
  show(<DeliveryTable delivery={DELIVERY} onChange={onChange} />);
  fireEvent.change(field("Shaft lean", "Shaft lean, mean"), { target: { value: "six" } });
  expect(onChange).not.toHaveBeenCalled();
  expect(screen.getByText("must be a number")).toBeTruthy();
  fireEvent.change(field("Attack", "Attack, strikes"), { target: { value: "" } });
  expect(onChange.mock.lastCall?.[0].attack_deg).toMatchObject({ count: null, source: "measured" });
});

it("a source is turned by a press, and what was taken from elsewhere can be said to be typed", () => {
  const onChange = vi.fn();
  show(<DeliveryTable delivery={DELIVERY} onChange={onChange} />);
  fireEvent.click(within(screen.getByRole("group", { name: "Entry" })).getByRole("button"));
  expect(onChange.mock.lastCall?.[0].entry_mm.source).toBe("typed");
});

const [first, second] = TABLES.shots.map((shot) => shot.key) as [string, string];
const USUAL = { [first]: 0.75, [second]: 0.25 };
const share = (key: string) =>
  screen.getByLabelText(`Share of ${TABLES.shots.find((shot) => shot.key === key)?.name}`) as HTMLInputElement;

it("the usual mix is assumed until a share is typed, and then all of it is the fitter's", () => {
  const onChange = vi.fn();
  show(<ShotMix mix={null} usual={USUAL} onChange={onChange} />);
  expect(screen.getByText(/usual for the handicap, assumed/)).toBeTruthy();
  expect(share(first).value).toBe("75");
  expect(screen.getByRole("button", { name: "Usual mix" }).hasAttribute("disabled")).toBe(true);
  fireEvent.change(share(first), { target: { value: "60" } });
  expect(onChange).toHaveBeenLastCalledWith({ [first]: 0.6, [second]: 0.25 });
});

it("shares that do not sum are said, scaled at a press, and let go for the usual ones", () => {
  const onChange = vi.fn();
  show(<ShotMix mix={{ [first]: 0.6, [second]: 0.2 }} usual={USUAL} onChange={onChange} />);
  expect(screen.getByText("sum 80.0 %").getAttribute("data-off")).toBe("true");
  fireEvent.click(screen.getByRole("button", { name: "Scale to 100 %" }));
  expect(onChange.mock.lastCall?.[0][first]).toBeCloseTo(0.75);
  expect(onChange.mock.lastCall?.[0][second]).toBeCloseTo(0.25);
  fireEvent.click(screen.getByRole("button", { name: "Usual mix" }));
  expect(onChange).toHaveBeenLastCalledWith(null);
});

it("what the server says of the mix stands under it", () => {
  const faults = [{ field: "player.shot_mix", message: "the shares sum to 80 %, not 100", value: null }];
  show(<ShotMix mix={USUAL} usual={USUAL} onChange={vi.fn()} />, { faults });
  expect(screen.getByRole("alert").textContent).toBe("the shares sum to 80 %, not 100");
});
