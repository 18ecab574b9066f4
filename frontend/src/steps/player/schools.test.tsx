import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import openapi from "../../../../openapi.json";
import type { Player } from "../../api/client";
import { TABLES } from "../../api/tables";
import { UnitsProvider } from "../../app/context";
import { show } from "../../testing/show";
import { SchoolsForm } from "./SchoolsForm";
import { SpeedFields } from "./SpeedFields";

const KNOWN = openapi.components.schemas.SchoolsDocument.properties as Record<
  string,
  { enum: string[]; default: string }
>;
const USUAL = Object.fromEntries(Object.entries(KNOWN).map(([key, { default: usual }]) => [key, usual]));

it("every school of the server can be chosen, every choice of it, and the document's stands", () => {
  const onChange = vi.fn();
  show(<SchoolsForm schools={USUAL as unknown as Player["schools"]} onChange={onChange} />);
  const groups = screen.getAllByRole("radiogroup");
  expect(groups).toHaveLength(Object.keys(KNOWN).length);
  const offered = groups.map((group) =>
    within(group)
      .getAllByRole("radio")
      .map((radio) => (radio as HTMLInputElement).value),
  );
  const asWords = (all: readonly (readonly string[])[]) => all.map((one) => [...one].sort().join(" ")).sort();
  expect(asWords(offered)).toEqual(asWords(Object.values(KNOWN).map(({ enum: values }) => values)));
  const standing = groups.map(
    (group) => (within(group).getByRole("radio", { checked: true }) as HTMLInputElement).value,
  );
  expect(standing.sort()).toEqual(Object.values(USUAL).sort());
});

it("a school that is pressed changes alone", () => {
  const onChange = vi.fn();
  show(<SchoolsForm schools={USUAL as unknown as Player["schools"]} onChange={onChange} />);
  fireEvent.click(screen.getByRole("radio", { name: "always open" }));
  expect(onChange.mock.calls).toEqual([[{ ...USUAL, sand_opening: "always_open" }]]);
});

const player = (pitching_wedge_carry_m: number | null, pitching_wedge_speed_mps: number | null) =>
  ({ pitching_wedge_carry_m, pitching_wedge_speed_mps }) as Player;
const speeds = (one: Player, units: object, onChange = vi.fn()) => {
  show(
    <UnitsProvider value={units as Parameters<typeof UnitsProvider>[0]["value"]}>
      <SpeedFields player={one} onChange={onChange} />
    </UnitsProvider>,
  );
  return onChange;
};
const YARDS = { distance: "yd", speed: "mph" };
const METRES = { distance: "m", speed: "mps" };

it("what is known of the pitching wedge is said: its carry before its speed, else the carry that is assumed", () => {
  speeds(player(110, 36), METRES);
  expect(screen.getByText("the carry is used")).toBeTruthy();
  cleanup();
  speeds(player(null, null), METRES);
  expect(screen.getByText(`assumed: ${Math.round(TABLES.assumed_carry_m)} m`)).toBeTruthy();
  cleanup();
  speeds(player(null, 36), METRES);
  expect(screen.queryByText(/assumed|is used/)).toBeNull();
});

it("carry and speed are typed in the reader's units and kept in metres and seconds; an empty field is not known", () => {
  const onChange = speeds(player(91.44, null), YARDS);
  const carry = screen.getByLabelText("Full pitching-wedge carry") as HTMLInputElement;
  expect(carry.value).toBe("100");
  fireEvent.change(carry, { target: { value: "110" } });
  expect(onChange.mock.lastCall?.[0].pitching_wedge_carry_m).toBeCloseTo(100.584, 6);
  fireEvent.change(carry, { target: { value: "" } });
  expect(onChange).toHaveBeenLastCalledWith({ pitching_wedge_carry_m: null });
  fireEvent.change(screen.getByLabelText("or its head speed"), { target: { value: "80" } });
  expect(onChange.mock.lastCall?.[0].pitching_wedge_speed_mps).toBeCloseTo(35.7632, 4);
});
