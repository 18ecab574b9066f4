import { fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { OwnedWedge, Recommendation } from "../../api/client";
import { TABLES } from "../../api/tables";
import { show } from "../../testing/show";
import { FormerClubs } from "./FormerClubs";
import { OwnedRow } from "./OwnedRow";

const wedge = (change: object) =>
  ({
    name: "gap",
    loft_deg: 50,
    stamped_loft_deg: 50,
    bounce_deg: 8,
    sole_width_mm: 19,
    measured: true,
    loft_typed: false,
    wear_class: "fresh",
    built: null,
    ...change,
  }) as unknown as OwnedWedge;
const owned = (wedges: OwnedWedge[], result: object | null = null, onChoose = vi.fn(), saved = wedges) =>
  show(
    <OwnedRow
      wedges={wedges}
      chosen={0}
      onChoose={onChoose}
      pitchingWedge="46°"
      result={result as Recommendation | null}
    />,
    { server: { id: "f", owned: saved.map(({ name }) => ({ shape: `${name} sole`, edge_height_mm: 4, outline_mm: [[0, 0], [1, 1]] })), document: { bag: { wedges: saved } } } }, // biome-ignore format: one line
  );

it("an empty bag teaches what to do", () => {
  owned([]);
  expect(screen.getByText(/Only the 46° pitching wedge so far/)).toBeTruthy();
});

it("drift is said from where it matters on, and not before", () => {
  const off = TABLES.drift_matters_deg;
  owned([wedge({ loft_deg: 50 + off }), wedge({ name: "sand", loft_deg: 50 + off - 0.1 })]);
  const [drifted, true_] = screen.getAllByRole("button");
  expect(drifted?.textContent).toContain(`stamped 50°, off by ${off.toFixed(1)}°`);
  expect(true_?.textContent).toContain("stands where stamped");
});

it("a loft that was typed over the gauge's is typed, one that nobody measured is assumed", () => {
  owned([wedge({}), wedge({ loft_typed: true }), wedge({ measured: false })]);
  expect(screen.getAllByRole("button").map((one) => one.querySelector("[data-source]")?.textContent)).toEqual([
    "measured",
    "typed",
    "assumed",
  ]);
});

it("what the server says of a wedge stays with it while another is taken out and not saved yet", () => {
  const bag = [wedge({}), wedge({ name: "sand", loft_deg: 56 }), wedge({ name: "lob", loft_deg: 60 })];
  const said = { bag: bag.map(({ name }, n) => ({ code: `own:${n}`, verdict: "keep", why: `the ${name} stays` })) };
  owned([...bag.slice(1), wedge({ name: "new", loft_deg: 52 })], said, vi.fn(), bag);
  const [sand, lob, fresh] = screen.getAllByRole("button").map((one) => one.textContent);
  expect(sand).toMatch(/sand sole.*the sand stays/);
  expect(lob).toMatch(/lob sole.*the lob stays/);
  expect(fresh).not.toMatch(/sole|stays/);
});

it("each owned club bears the proposal's word on it, and wear that matters", () => {
  const onChoose = vi.fn();
  owned(
    [wedge({}), wedge({ name: "sand", wear_class: "worn" })],
    { bag: [{ code: "own:1", verdict: "replace", why: "a 56 with 12 saves 0.4 a round" }] },
    onChoose,
  );
  const [kept, replaced] = screen.getAllByRole("button");
  expect(kept?.textContent).not.toContain("replace");
  expect(replaced?.textContent).toContain("worn smooth");
  expect(replaced?.textContent).toContain("replace a 56 with 12 saves 0.4 a round");
  fireEvent.click(replaced as HTMLElement);
  expect(onChoose).toHaveBeenCalledWith(1);
  expect(kept?.getAttribute("aria-pressed")).toBe("true");
});

it("clubs as they were stand with the day until which they were so; none, no heading", () => {
  const { unmount } = show(<FormerClubs former={[]} />);
  expect(screen.queryByRole("heading")).toBeNull();
  unmount();
  const former = [
    { code: "was:1", wedge: wedge({ lie_deg: 64 }), until: "2026-06-03", became: "bent to 52°" },
  ] as unknown as Parameters<typeof FormerClubs>[0]["former"];
  show(<FormerClubs former={former} />);
  const cells = screen.getAllByRole("cell").map((cell) => cell.textContent);
  expect(cells.slice(0, 4)).toEqual(["gap", "50", "8", "64"]);
  expect(cells[4]).toContain("2026");
  expect(cells[5]).toBe("bent to 52°");
});
