import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { OwnedWedge } from "../../api/client";
import { TABLES, usualOf } from "../../api/tables";
import { server, show } from "../../testing/show";
import { OwnedForm } from "./OwnedForm";

const onChange = vi.fn();
const onRemove = vi.fn();
beforeEach(() => {
  onChange.mockClear();
  onRemove.mockClear();
});
const WEDGE = {
  ...usualOf(TABLES.head),
  name: "gap",
  loft_deg: 50,
  stamped_loft_deg: 52,
  lie_deg: 64,
  bounce_deg: 8,
  sole_width_mm: 19,
  measured: false,
  loft_typed: false,
  make: "forged",
  bend_limit_deg: TABLES.bend_limit_deg.forged,
  wear_class: "unknown",
  wear: "",
  photos: [],
} as unknown as OwnedWedge;
const form = (change: object = {}, more: object = {}) =>
  show(
    <OwnedForm
      wedge={{ ...WEDGE, ...change } as OwnedWedge}
      target="own:0"
      path="bag.wedges.0"
      onChange={onChange}
      onKnown={vi.fn()}
      onRemove={onRemove}
      {...more}
    />,
  );
const type = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });

it("a loft that is typed is measured by hand; the stamp is not, and may be unknown", () => {
  server({});
  form();
  type("Measured loft", "50.5");
  expect(onChange).toHaveBeenLastCalledWith({ ...WEDGE, loft_deg: 50.5, measured: true, loft_typed: true });
  type("Stamped loft", "");
  expect(onChange).toHaveBeenLastCalledWith({ ...WEDGE, stamped_loft_deg: null });
  onChange.mockClear();
  type("Measured loft", "");
  expect(onChange).not.toHaveBeenCalled();
});

it("a cast head may be bent less than a forged one, never more by being called forged again", () => {
  server({});
  form();
  fireEvent.click(screen.getByRole("radio", { name: "cast" }));
  const cast = onChange.mock.lastCall?.[0];
  expect(cast).toMatchObject({ make: "cast", bend_limit_deg: TABLES.bend_limit_deg.cast });
  cleanup();
  form({ make: "cast", bend_limit_deg: 0.5 });
  fireEvent.click(screen.getByRole("radio", { name: "forged" }));
  expect(onChange.mock.lastCall?.[0].bend_limit_deg).toBe(0.5);
});

it("every figure of the sole that is typed has its field, the lesser ones behind a press", () => {
  server({});
  form();
  const shown = (where: string) =>
    TABLES.head.filter((figure) => figure.where === where).map(({ words }) => screen.queryByLabelText(words));
  expect(shown("first").every(Boolean)).toBe(true);
  expect(shown("more").some(Boolean)).toBe(false);
  fireEvent.click(screen.getByRole("button", { name: "More of the sole" }));
  expect(shown("more").every(Boolean)).toBe(true);
  fireEvent.click(screen.getByRole("button", { name: "Fewer figures" }));
  expect(shown("more").some(Boolean)).toBe(false);
});

it("a wedge that was just added waits for its name", async () => {
  server({});
  form({ name: "" }, { fresh: true });
  expect(document.activeElement).toBe(screen.getByLabelText("Name"));
  fireEvent.click(await screen.findByRole("button", { name: "Remove this wedge" }));
  expect(onRemove).toHaveBeenCalledTimes(1);
});

const DEVICE = {
  kind: "gauge", available: true, wanted: true, state: "live", device: "stand-in gauge", simulated: true,
  target: "own:0", taken: 3, refused: 0, last_refusal: "",
}; // biome-ignore format: one line a few things
const read = (figures: Record<string, number>) => ({
  "GET devices": { devices: [DEVICE] },
  "GET readings": {
    readings: [{ id: "a", kind: "gauge", target: "own:0", figures, simulated: true, set_aside: null }],
    summaries: [
      {
        kind: "gauge", target: "own:0", count: 1, aside: 0, simulated: true, words: "",
        figures: Object.entries(figures).map(([key, mean]) => ({ key, mean, spread: 0, count: 1 })),
      },
    ],
  },
}); // biome-ignore format: one line a few things

it("the gauge says how far the stamp is off, and gives its figures to the tenth as measured", async () => {
  server(read({ loft_deg: 50.46, lie_deg: 63.94, bounce_deg: 8.04, sole_width_mm: 19.26, edge_height_mm: 3.1 }));
  form();
  expect(
    await screen.findByText(
      "50.5° loft, 1.5° stronger than stamped, 8.0° bounce, lie 63.9°, edge 3.1 mm off the floor",
    ),
  ).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Use them" }));
  expect(onChange).toHaveBeenLastCalledWith({
    ...WEDGE, loft_deg: 50.5, lie_deg: 63.9, bounce_deg: 8, sole_width_mm: 19.3, measured: true, loft_typed: false,
  }); // biome-ignore format: one line a few things
});

it.each([
  [52, "52.0° loft, as stamped"],
  [53, "53.0° loft, 1.0° weaker than stamped"],
])("a loft of %s° beside a stamp of 52", async (loft_deg, words) => {
  server(read({ loft_deg, lie_deg: 64, bounce_deg: 8, sole_width_mm: 19 }));
  form();
  expect(await screen.findByText(new RegExp(`^${words}`))).toBeTruthy();
});

it("without a stamp there is nothing to be off from", async () => {
  server(read({ loft_deg: 53, lie_deg: 64, bounce_deg: 8, sole_width_mm: 19 }));
  form({ stamped_loft_deg: null });
  expect((await screen.findByText(/^53\.0° loft/)).textContent).not.toContain("stamped");
});

it("the bag stands on the gauge until a loft is typed over it", async () => {
  const measured = { measured: true, loft_deg: 50.5, lie_deg: 64, bounce_deg: 8, sole_width_mm: 19 };
  server(read({ loft_deg: 50.5, lie_deg: 64, bounce_deg: 8, sole_width_mm: 19 }));
  form(measured);
  expect(await screen.findByText("The fitting stands on them.")).toBeTruthy();
  cleanup();
  form({ ...measured, loft_typed: true });
  await screen.findByText(/^50\.5° loft/);
  expect(screen.queryByText("The fitting stands on them.")).toBeNull();
});

it("wear is a class that counts and words that say where", async () => {
  server({});
  form();
  const worn = within(await screen.findByRole("radiogroup", { name: /Wear/ }));
  fireEvent.click(worn.getByRole("radio", { name: "worn smooth" }));
  expect(onChange.mock.lastCall?.[0].wear_class).toBe("worn");
  fireEvent.change(screen.getByLabelText("Where, and how"), { target: { value: "heel" } });
  expect(onChange.mock.lastCall?.[0].wear).toBe("heel");
});
