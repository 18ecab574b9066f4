import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { show } from "../../testing/show";
import { Columns } from "./Columns";
import type { Draft, ImportRun, Look } from "./mapping";
import { Outcome } from "./Outcome";
import type { useImport } from "./useImport";
import { Words } from "./Words";

const FITTING = {
  server: {
    id: "f",
    document: {
      bag: { wedges: [{ name: "sand", loft_deg: 56 }], pitching_wedge_loft_deg: 46, nine_iron_loft_deg: 41 },
      measuring: { swings: [] },
    },
  },
};
const look = {
  columns: [
    { column: 1, name: "Club", samples: ["PW"] },
    { column: 2, name: "Carry", samples: ["100"] },
  ],
  fields: [
    { field: "club", label: "club", units: [] },
    { field: "carry_m", label: "carry", units: ["m", "yd"] },
  ],
  club_words: ["PW", "Driver"],
  swing_words: [],
} as unknown as Look;
const draft: Draft = {
  layout: {},
  uses: { 1: { field: "club", unit: null }, 2: { field: "carry_m", unit: null } },
  decimal: "point",
  club: null,
  swing: "full",
  clubs: { PW: "pw" },
  swings: {},
  fill_down: false,
};

it("a fault stands at its own column", () => {
  const faults = [{ field: "mapping.columns.1.unit", message: "must be chosen", value: "" }];
  show(<Columns look={look} draft={draft} faults={faults} onChange={() => {}} />);
  const row = screen.getByRole("row", { name: /Carry/ });
  expect(within(row).getByRole("alert").textContent).toBe("must be chosen");
  expect(within(screen.getByRole("row", { name: /PW/ })).queryByRole("alert")).toBeNull();
});

it("a word is mapped, left out, or asked for; without a column one choice holds for all rows", () => {
  const onChange = vi.fn();
  show(<Words look={look} draft={draft} onChange={onChange} />, FITTING);
  expect(screen.getByText(/one word means nothing yet/)).toBeTruthy();
  const driver = screen.getByLabelText("What Driver means");
  fireEvent.change(driver, { target: { value: "-" } });
  expect(onChange.mock.lastCall?.[0].clubs).toEqual({ PW: "pw", Driver: null });
  fireEvent.change(screen.getByLabelText("What PW means"), { target: { value: "" } });
  expect(onChange.mock.lastCall?.[0].clubs).toEqual({});
  fireEvent.change(screen.getByLabelText("Swing of every row"), { target: { value: "900" } });
  expect(onChange.mock.lastCall?.[0].swing).toBe("900");
});

describe("the foot of the page", () => {
  const run = (change: Partial<ImportRun>): ImportRun => ({
    id: "i",
    name: "bay.csv",
    state: "checked",
    words: "",
    stage: "checking",
    done: 9,
    total: 9,
    counts: { rows: 9, ready: 6, known: 2, left_out: 1, wrong: 2, taken: 0 },
    wrong: [{ row: 4, column: "Carry", value: "900", reason: "must be between 1 and 200 m" }],
    created_at: "2026-11-26T10:00:00Z",
    taken_by: "",
    ...change,
  });
  const foot = (it: ImportRun, missing: string | null = null) => {
    const work = { start: { mutate: vi.fn() }, stop: { mutate: vi.fn() }, withdraw: { mutate: vi.fn() }, wrongAt: "" };
    show(<Outcome work={work as unknown as ReturnType<typeof useImport>} run={it} missing={missing} question={null} />);
    return work;
  };

  it("takes nothing until wrong rows are left out by word, and says how many are new", () => {
    const work = foot(run({}));
    expect(screen.getByRole("status").textContent).toContain(
      "4 new strikes of 9 rows; 2 stand here already; 1 left out",
    );
    const take = screen.getByRole("button", { name: "Take 4 strikes" });
    expect(take.hasAttribute("disabled")).toBe(true);
    fireEvent.click(screen.getByLabelText("Leave the 2 wrong rows out"));
    fireEvent.click(screen.getByLabelText(/are other strikes/));
    fireEvent.click(screen.getByRole("button", { name: "Take 6 strikes" }));
    expect(work.start.mutate).toHaveBeenCalledWith({
      take: true,
      leave_out_wrong: true,
      other_strikes: true,
      keep_as: "bay",
    });
  });

  it("counts while it runs, and can be stopped", () => {
    const work = foot(run({ state: "running", done: 50_000, total: 100_000 }));
    expect(screen.getByRole("status").textContent).toBe("Checking rows: 50,000 of 100,000");
    fireEvent.click(screen.getByRole("button", { name: "Stop" }));
    expect(work.stop.mutate).toHaveBeenCalled();
  });

  it("says what is missing, and offers to take a taken file back", () => {
    foot(run({ state: "ready", counts: null, wrong: [] }), "Apex: unit must be chosen");
    expect(screen.getByText("Apex: unit must be chosen")).toBeTruthy();
    cleanup();
    const work = foot(
      run({ state: "taken", counts: { rows: 9, ready: 6, known: 2, left_out: 1, wrong: 2, taken: 4 } }),
    );
    expect(screen.getByRole("status").textContent).toContain("4 strikes taken from bay.csv; 2 stood here already");
    fireEvent.click(screen.getByRole("button", { name: "Take it back" }));
    expect(work.withdraw.mutate).toHaveBeenCalled();
  });
});
