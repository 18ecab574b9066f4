import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { server, show } from "../../testing/show";
import { RoundsOut } from "../log/RoundsOut";
import { ProofsOut } from "../proof/PutBack";

const left = {
  kept: [],
  proofs: [{ id: "p", on: "2026-11-02", clubs: ["Barrow 55", "old sand"] }],
  rounds: [{ round: "r", on: "2026-05-01", shots: 1 }],
};
const open = (title: string) => {
  const list = screen.getByText(title).closest("details") as HTMLDetailsElement;
  list.open = true;
  fireEvent(list, new Event("toggle"));
  return within(list);
};

it("what was taken out is asked for once its list is opened, and each comes back at a press", async () => {
  const asked = server({ "GET out": left, "POST proofs/p/back": null });
  const onBack = vi.fn();
  show(<ProofsOut onBack={onBack} />);
  expect(asked).toEqual([]);
  const list = open("Proofs taken out");
  await list.findByText("2 Nov 2026: Barrow 55, old sand");
  fireEvent.click(list.getByRole("button", { name: "Put back" }));
  await waitFor(() => expect(onBack).toHaveBeenCalledWith("p"));
  expect(asked.map(({ line }) => line).filter((line) => line === "GET out")).toHaveLength(2);
});

it("a round is told by its day and shots; where nothing was taken out it says so", async () => {
  server({ "GET out": left });
  const onMark = vi.fn();
  const { unmount } = show(<RoundsOut onMark={onMark} />);
  const list = open("Rounds taken out");
  await list.findByText("1 May 2026, 1 shot");
  fireEvent.click(list.getByRole("button", { name: "Put back" }));
  expect(onMark).toHaveBeenCalledWith({ round: "r", on: "2026-05-01", out: false });
  unmount();
  server({ "GET out": { ...left, rounds: [] } });
  show(<RoundsOut onMark={onMark} />);
  expect(await open("Rounds taken out").findByText(/^None\./)).toBeTruthy();
});
