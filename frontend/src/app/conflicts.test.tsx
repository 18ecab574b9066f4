import { fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Recommendation } from "../api/client";
import { show, showAlone } from "../testing/show";
import { Conflicts, Figure } from "./Conflicts";
import { UnitsProvider } from "./context";
import { Heard } from "./Heard";

it("what two changed stands side by side and is chosen one by one", () => {
  const resolve = vi.fn();
  const one = {
    path: "player.pitching_wedge_carry_m", name: "full carry", unit: "m", mine: 100, theirs: 91.44, mine_words: "",
    theirs_words: "",
  }; // biome-ignore format: one line a few things
  const words = {
    ...one,
    path: "player.hand",
    name: "hand",
    mine: null,
    theirs: null,
    mine_words: "left",
    theirs_words: "right",
  };
  show(
    <UnitsProvider value={{ distance: "yd", speed: "mph" }}>
      <Conflicts />
    </UnitsProvider>,
    { conflicts: [one, words], resolve },
  );
  const cells = screen.getAllByRole("cell").map((cell) => cell.textContent);
  expect(cells).toContain("109.4\u00a0ydTake yours");
  expect(cells).toContain("100.0\u00a0ydTake theirs");
  expect(cells).toContain("leftTake yours");
  fireEvent.click(screen.getByRole("button", { name: "Take theirs: hand" }));
  expect(resolve).toHaveBeenCalledWith(words, "theirs");
  fireEvent.click(screen.getByRole("button", { name: "Take yours: full carry" }));
  expect(resolve).toHaveBeenLastCalledWith(one, "mine");
});

it("without a conflict nothing is on the page", () => {
  show(<Conflicts />, { conflicts: [], resolve: vi.fn() });
  expect(screen.queryByRole("table")).toBeNull();
});

it.each([
  [10, "degrees", "10°"],
  [12.5, "mm", /12\.5\s?mm/],
  [0.25, "", "0.25"],
  [null, "m", "none"],
])("a figure of %s %s reads %s", (value, unit, shown) => {
  const { container } = showAlone(<Figure value={value} unit={unit} words="none" />);
  expect(container.textContent).toMatch(shown);
});

it("the set is said in words once the whole rack has answered, and not among the clubs near the last one", () => {
  const result = (clubs: object[], whole_rack = true) => ({ clubs, whole_rack }) as unknown as Recommendation;
  const { again } = showAlone(<Heard result={result([{ name: "Barrow", loft_deg: 54 }])} />);
  const said = () => screen.getByRole("status").textContent;
  expect(said()).toBe("The set: Barrow at 54°");
  again(<Heard result={result([{ name: "other", loft_deg: 56 }], false)} />);
  expect(said()).toBe("The set: Barrow at 54°");
  again(<Heard result={result([])} />);
  expect(said()).toBe("The set: today’s bag");
  again(<Heard result={null} toCome />);
  expect(said()).toBe("The set: today’s bag");
  again(<Heard result={null} />);
  expect(said()).toBe("No set can be proposed yet.");
});
