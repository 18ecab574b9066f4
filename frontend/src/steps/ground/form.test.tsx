import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { Ground } from "../../api/client";
import { TABLES, usualOf } from "../../api/tables";
import { server, show } from "../../testing/show";
import { GroundForm } from "./GroundForm";

const onChange = vi.fn();
const onRemove = vi.fn();
beforeEach(() => {
  onChange.mockClear();
  onRemove.mockClear();
});
/** A ground with every kind at its usual figures, from the program's tables. */
function ground(change: object = {}): Ground {
  const kinds = TABLES.grounds.map((kind) => {
    const here: Record<string, unknown> = {
      ...usualOf(kind.figures),
      [kind.source]: "assumed",
      [kind.readings]: [],
    };
    if (kind.picked) here[kind.picked.field] = Object.keys(kind.picked.values)[0];
    return [kind.key, here];
  });
  const base = { name: "home", share: 0.6, green: TABLES.greens[0], ...usualOf(TABLES.place) };
  return { ...base, ...Object.fromEntries(kinds), ...change } as unknown as Ground;
}
const form = (one = ground(), more: object = {}, store: object = {}) =>
  show(<GroundForm ground={one} path="grounds.0" says={undefined} onChange={onChange} {...more} />, store);
const groupOf = (words: string) => within(screen.getByRole("group", { name: new RegExp(`^${words}`) }));

it("every kind of ground and every figure of a place in the program's tables has its field", () => {
  server({});
  form();
  for (const kind of TABLES.grounds) {
    const here = groupOf(kind.words);
    expect(here.getByRole("radiogroup", { name: "Class" })).toBeTruthy();
    for (const figure of kind.figures.filter(({ where, key }) => where === "first" && key !== kind.picked?.figure))
      expect(here.getAllByLabelText(new RegExp(figure.words)).length).toBeGreaterThan(0);
  }
  for (const figure of TABLES.place) expect(screen.getByLabelText(new RegExp(figure.words))).toBeTruthy();
});

it.each(TABLES.grounds.map((kind) => [kind.words, kind] as const))(
  "%s: a class is an assumption, a typed figure is typed, and either lets the readings go",
  (_, kind) => {
    server({});
    const measured = { ...(ground() as unknown as Record<string, object>)[kind.key], [kind.readings]: [1, 2], [kind.source]: "measured" }; // biome-ignore format: one line
    form(ground({ [kind.key]: measured }));
    const last = kind.classes.at(-1);
    fireEvent.click(groupOf(kind.words).getByRole("radio", { name: last?.words }));
    expect(onChange.mock.lastCall?.[0][kind.key]).toEqual({
      ...measured, [kind.reading]: last?.usual, [kind.source]: "assumed", [kind.readings]: [],
    }); // biome-ignore format: one line a few things
    const reading = kind.figures.find(({ key }) => key === kind.reading);
    const figure = ((reading?.low ?? 0) + (reading?.high ?? 0)) / 2;
    fireEvent.change(groupOf(kind.words).getByLabelText(new RegExp(`^${reading?.words}$`)), { target: { value: String(figure) } }); // biome-ignore format: one line
    const typed = onChange.mock.lastCall?.[0][kind.key];
    expect(typed[kind.source]).toBe("typed");
    expect(typed[kind.readings]).toEqual([]);
    expect(typed[kind.reading]).toBeCloseTo(figure, 6);
  },
);

it("a share is typed in per cent and kept as a share; the last ground is not removed", () => {
  server({});
  form();
  const share = screen.getByLabelText("Share of their golf") as HTMLInputElement;
  expect(share.value).toBe("60");
  fireEvent.change(share, { target: { value: "35" } });
  expect(onChange.mock.lastCall?.[0].share).toBeCloseTo(0.35, 9);
  expect(screen.queryByRole("button", { name: "Remove this ground" })).toBeNull();
  cleanup();
  form(ground(), { onRemove });
  fireEvent.click(screen.getByRole("button", { name: "Remove this ground" }));
  expect(onRemove).toHaveBeenCalledTimes(1);
});

it("what the server says of a field stands at that field", () => {
  server({});
  form(ground(), {}, { faults: [{ field: "grounds.0.name", message: "two grounds have this name", value: "home" }] });
  const name = screen.getByLabelText("Name");
  expect(name.getAttribute("aria-invalid")).toBe("true");
  expect(document.getElementById(name.getAttribute("aria-describedby")?.split(" ")[0] ?? "")?.textContent).toBe(
    "two grounds have this name",
  );
});

it("other ground than the fitting's has no instrument, the fitting's own has", async () => {
  const asked = server({ "GET devices": { devices: [] }, "GET readings": { readings: [], summaries: [] } });
  form(ground(), { away: true });
  expect(asked).toEqual([]);
  cleanup();
  form();
  await vi.waitFor(() => expect(asked.some(({ line }) => line.startsWith("GET devices"))).toBe(true));
});
