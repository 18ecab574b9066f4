import { fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { show } from "../../testing/show";
import { NoProposal } from "./NoProposal";

it("what keeps a proposal from being made has its field's name, and the way to where it is mended", () => {
  const edit = vi.fn();
  const choices = { pinned: [{ loft_deg: 52, code: "A" }], ladder_deg: null };
  const problem = [
    { field: "player.wedge_count", message: "with 11 other clubs there is room for 3", value: "4", name: "wedges wanted" },
    { field: "choices.pinned", message: "2 heads are set by hand where 1 wedge is wanted", value: "", name: "heads set by hand" },
  ]; // biome-ignore format: a line each
  show(<NoProposal title="Soles" />, { server: { id: "f", problem, to_come: false }, draft: { choices }, edit });
  const [wanted, pinned] = screen.getAllByRole("listitem").map((line) => line.textContent);
  expect(wanted).toBe("wedges wanted: with 11 other clubs there is room for 3. Go to Player");
  expect(pinned).toBe("heads set by hand: 2 heads are set by hand where 1 wedge is wanted. Let them go");
  expect(screen.getByRole("link", { name: "Go to Player" }).getAttribute("href")).toBe("/fittings/f/player");
  fireEvent.click(screen.getByRole("button", { name: "Let them go" }));
  expect(edit).toHaveBeenCalledWith("choices", { pinned: [], ladder_deg: null });
});
