import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { UnitsProvider } from "../../app/context";
import { inFitting, show, showAlone } from "../../testing/show";
import CardStep from "./CardStep";

const edit = vi.fn();
const CARD = {
  basis: "proposed", measured: 2, hand: "right", lies: [], outlines_mm: {}, drills: [], practice_weeks: 4,
  rows: [{ loft_deg: 50, swing_name: "full" }, { loft_deg: 55.5, swing_name: "9:00" }, { loft_deg: 60, swing_name: "full" }],
  distances: [{ distance_m: 45.72, still: 1, into: 0, firm: 9 }],
}; // biome-ignore format: one line a few things
let answers: Record<string, () => Response>;
const json = (body: object, status = 200) => new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } }); // biome-ignore format: one line

beforeEach(() => {
  edit.mockClear();
  answers = { "/card": () => json(CARD), "/handovers": () => json({ handovers: [], scores: [] }) };
  vi.stubGlobal("fetch", async (request: Request) => {
    const key = Object.keys(answers).find((end) => new URL(request.url).pathname.endsWith(end));
    return key ? (answers[key] as () => Response)() : json({ message: "not there" }, 404);
  });
});
const CHOSEN = { size: "a6", grey: false, parts: ["lofts", "full", "rules"], ball: "" };
const step = (card: object = CHOSEN, units = { distance: "yd", speed: "mph" }) =>
  show(
    <UnitsProvider value={units as Parameters<typeof UnitsProvider>[0]["value"]}>
      <CardStep />
    </UnitsProvider>,
    {
      server: { id: "f", revision: 1, strikes_key: "k" },
      draft: { card, player: { name: "somebody" } },
      saveState: "saved",
      edit,
    },
  );

it("the card says which set it is of, how much of it is measured, and is of paper, colour and parts that are chosen", async () => {
  step();
  const card = within(await screen.findByRole("region", { name: "Bag card" }));
  expect(screen.getByText("wedges as proposed, not built yet")).toBeTruthy();
  expect(card.getByText("2 of 3 carries stand on strikes, the others on the model.")).toBeTruthy();
  fireEvent.click(card.getByRole("radio", { name: "pocket" }));
  expect(edit).toHaveBeenLastCalledWith("card", { ...CHOSEN, size: "pocket" });
  fireEvent.click(card.getByRole("radio", { name: "greyscale" }));
  expect(edit).toHaveBeenLastCalledWith("card", { ...CHOSEN, grey: true });
});

it("parts are put on and off in the card's own order, and one stays", async () => {
  step();
  const card = within(await screen.findByRole("region", { name: "Bag card" }));
  fireEvent.click(card.getByRole("checkbox", { name: "the table of distances" }));
  expect(edit.mock.lastCall?.[1].parts).toEqual(["lofts", "full", "distances", "rules"]);
  fireEvent.click(card.getByRole("checkbox", { name: "full swings" }));
  expect(edit.mock.lastCall?.[1].parts).toEqual(["lofts", "rules"]);
  cleanup();
  step({ ...CHOSEN, parts: ["rules"] });
  const one = await screen.findByRole("checkbox", { name: "wind and green rules" });
  expect(one.hasAttribute("disabled")).toBe(true);
});

it("the picture of before says that the card is being set as it is chosen now, and one page alone is asked for", async () => {
  // the stand-in's blobs are none of this page's own reader
  vi.stubGlobal(
    "FileReader",
    class {
      result = "";
      onload = () => {};
      readAsDataURL = async (blob: Blob) => {
        this.result = `data:${await blob.text()}`;
        this.onload();
      };
      abort = () => {};
    },
  );
  const pages: string[] = [];
  const at = (revision: number) =>
    inFitting(<CardStep />, {
      server: { id: "f", revision, strikes_key: "k", rack_key: "r" },
      draft: { card: CHOSEN, player: { name: "somebody" } },
      saveState: "saved",
      edit,
    });
  answers["/card/bag.png"] = () => {
    pages.push("set");
    return new Response(`page ${pages.length}`, { headers: { "Content-Type": "image/png" } });
  };
  const { again } = showAlone(at(1));
  const first = await screen.findByRole("img", { name: "The bag card as it is printed" });
  const before = first.getAttribute("src");
  expect(screen.queryByText("Setting the card as chosen now …")).toBeNull();
  for (const revision of [2, 3, 4]) again(at(revision));
  await screen.findByText("Setting the card as chosen now …");
  await waitFor(() => expect(screen.queryByText("Setting the card as chosen now …")).toBeNull());
  await waitFor(() => expect(screen.getByRole("img", { name: /bag card/ }).getAttribute("src")).not.toBe(before));
  expect(pages).toHaveLength(2);
});

it("a card of the rack that was is not shown once another is in its place", async () => {
  const with_ = (rack_key: string) =>
    inFitting(<CardStep />, {
      server: { id: "f", revision: 1, strikes_key: "k", rack_key },
      draft: { card: CHOSEN, player: { name: "somebody" } },
      saveState: "saved",
      edit,
    });
  const { again } = showAlone(with_("a"));
  await screen.findByText("wedges as proposed, not built yet");
  answers["/card"] = () => json({ ...CARD, basis: "owned" });
  again(with_("b"));
  await screen.findByText("wedges as owned");
});

it("what to take is in the reader's unit; a shot that is not there is empty", async () => {
  step();
  const table = await screen.findByRole("table", { name: "What to take" });
  const cells = within(table)
    .getAllByRole("cell")
    .map((cell) => cell.textContent);
  expect(cells).toEqual(["50", "55.5° 9:00", "50° full", ""]);
});

it("a card that does not fit its paper says what to leave out, one that cannot be worked out why", async () => {
  answers["/card/bag.png"] = () => json({ code: "invalid", message: "leave out the table of distances" }, 422);
  step();
  expect((await screen.findByRole("alert")).textContent).toBe("leave out the table of distances");
  cleanup();
  answers["/card"] = () => json({ code: "invalid", message: "no wedge in the bag" }, 422);
  step();
  await waitFor(() => expect(screen.getByRole("alert").textContent).toBe("no wedge in the bag"));
  expect(screen.queryByRole("region", { name: "Bag card" })).toBeNull();
});
