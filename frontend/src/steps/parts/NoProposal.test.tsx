import { fireEvent, screen, within } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { show } from "../../testing/show";
import { notStanding } from "./ByHand";
import { NoProposal } from "./NoProposal";

it("what keeps a proposal from being made has its field's name, and the way to where it is mended", () => {
  const edit = vi.fn();
  const choices = {
    pinned: [
      { loft_deg: 52, code: "A" },
      { loft_deg: 56, code: "was:1:0" },
    ],
    ladder_deg: null,
  };
  const problem = [
    {
      field: "player.wedge_count",
      message: "with 11 other clubs there is room for 3",
      value: "4",
      name: "wedges wanted",
    },
    {
      field: "choices.pinned",
      message: "2 heads are set by hand where 1 wedge is wanted",
      value: "",
      name: "heads set by hand",
    },
  ];
  const fitting = { id: "f", problem, to_come: false, recommendation: null, document: { choices } };
  const server = { ...fitting, by_hand: ["Barrow 52", "gap, as it was"] };
  show(<NoProposal title="Soles" />, { server, draft: { choices }, edit });
  const [wanted, pinned] = screen.getAllByRole("listitem").map((line) => line.textContent);
  expect(wanted).toBe("wedges wanted: with 11 other clubs there is room for 3. Go to Player");
  expect(pinned).toContain("heads set by hand: 2 heads are set by hand where 1 wedge is wanted.");
  expect(screen.getByRole("link", { name: "Go to Player" }).getAttribute("href")).toBe("/fittings/f/player");
  const heads = within(screen.getByRole("list", { name: "Heads set by hand" })).getAllByRole("listitem");
  expect(heads.map((one) => one.textContent)).toEqual(["Barrow 52, 52° Let it go", "gap, as it was, 56° Let it go"]);
  fireEvent.click(screen.getByRole("button", { name: "Let it go: gap, as it was" }));
  expect(edit.mock.lastCall?.[1](choices)).toEqual({ pinned: [choices.pinned[0]], ladder_deg: null });
});

it("a head set by hand that stands in the set is not told as one that does not, and at another loft it is", () => {
  const [here, low, other] = [["A", 52], ["A", 54], ["B", 56]].map(([code, loft_deg]) => ({ code, loft_deg })); // biome-ignore format: one line
  const clubs = [
    { ...here, pinned: true },
    { ...other, pinned: false },
  ];
  const document = { choices: { pinned: [here, low, other] } };
  const server = { document, by_hand: ["Barrow 52", "Barrow 52", "Down 56"], recommendation: { clubs } };
  expect(notStanding(server as never)).toEqual([
    { ...low, name: "Barrow 52" },
    { ...other, name: "Down 56" },
  ]);
});
