import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { UnitsProvider } from "../../app/context";
import { server, show } from "../../testing/show";
import { HandOver } from "./HandOver";

const DRILLS = [{ key: "towel", name: "Towel behind the ball", count: 10, mark: 7 }, { key: "line", name: "Line in the sand", count: 10, mark: 6 }]; // biome-ignore format: one line
const handed = (change: object = {}) => ({
  id: "h1", created_at: "2026-05-03T10:00:00", made_by: "Ada", closed_at: null, path: "/p/abc", expires_at: "2027-11-03T10:00:00", qr: null,
  page: { card: { drills: DRILLS } }, scores: [], standings: [], ...change,
}); // biome-ignore format: a hand-over in a few lines
const section = (handovers: object[], more: Record<string, unknown> = {}, saveState = "saved") => {
  const asked = server({ ...more, "GET handovers": { handovers } });
  const refresh = vi.fn(async () => {});
  show(
    <UnitsProvider value={{ distance: "yd", speed: "mph" }}>
      <HandOver />
    </UnitsProvider>,
    { server: { id: "f", revision: 6 }, saveState, refresh },
  );
  return { asked, refresh };
};
const sent = (asked: { line: string; body: string }[], line: string) =>
  asked.filter((one) => one.line.startsWith(line)).map((one) => JSON.parse(one.body || "{}"));
const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));

it("hands over what is saved, in the reader's unit unless another is chosen", async () => {
  const { asked, refresh } = section([], { "POST handovers": { handovers: [handed()] } });
  fireEvent.click(screen.getByText("metres"));
  press("Hand it over");
  await screen.findByText(/^Handed over 3 May 2026, 10:00 by Ada$/);
  expect(sent(asked, "POST handovers")).toMatchObject([{ revision: 6, distance: "m" }]);
  expect(refresh).toHaveBeenCalledOnce();
  expect(screen.getByRole("link", { name: "The player's page" }).getAttribute("href")).toBe("/p/abc");
});

it("one whose answer got lost is asked for again under the same id", async () => {
  const { asked } = section([]);
  press("Hand it over");
  await waitFor(() => expect(screen.getByRole("alert").textContent).not.toBe(""));
  press("Hand it over");
  await waitFor(() => expect(sent(asked, "POST handovers").length).toBe(2));
  const [first, second] = sent(asked, "POST handovers");
  expect(second.id).toBe(first.id);
});

it("a page that is closed or over has no link and takes no scores", async () => {
  section([handed({ closed_at: "2026-06-01T09:30:00", path: "" }), handed({ id: "h2", path: "" })]);
  await screen.findByText("Closed 1 Jun 2026, 09:30.");
  expect(screen.getByText("It held until 3 Nov 2027.")).toBeTruthy();
  expect(screen.queryByRole("link")).toBeNull();
  expect(screen.queryByRole("button", { name: "Log the score" })).toBeNull();
});

it("a page is closed by a press", async () => {
  const { asked, refresh } = section([handed()], { "DELETE handovers": null });
  fireEvent.click(await screen.findByRole("button", { name: "Close the page" }));
  await waitFor(() => expect(refresh).toHaveBeenCalledOnce());
  expect(asked.map(({ line }) => line)).toContain("DELETE handovers/h1");
});

it("scores of a drill are counted where they came from, with what is to be done next", async () => {
  const score = (id: string, by: string) => ({ id, drill: "towel", score: 8, count: 10, on: "2026-05-04", by });
  section([handed({
    scores: [score("1", "player"), score("2", "fitter")],
    standings: [{ drill: "towel", level: 1, levels: 3, mark: 8, advice: "next level" }],
  })]); // biome-ignore format: two lines
  await screen.findByText("Towel behind the ball: 2 goes, some counted here: next level");
  expect(screen.queryByText(/^Line in the sand: /)).toBeNull();
});

it("the fitter logs a score of the chosen drill", async () => {
  const { asked } = section([handed()], { "POST handovers/h1/scores": {} });
  const form = within((await screen.findByRole("button", { name: "Log the score" })).closest("form") as HTMLElement);
  fireEvent.change(form.getByLabelText("Drill"), { target: { value: "line" } });
  fireEvent.change(form.getByLabelText(/Came off/), { target: { value: "9" } });
  fireEvent.blur(form.getByLabelText(/Came off/));
  fireEvent.click(form.getByRole("button", { name: "Log the score" }));
  await waitFor(() => expect(sent(asked, "POST handovers/h1/scores").length).toBe(1));
  expect(sent(asked, "POST handovers/h1/scores")[0].scores).toMatchObject([{ drill: "line", score: 9, count: 10 }]);
});

it("a score changed after its answer got lost is another one, and what arrived is looked for first", async () => {
  const { asked } = section([handed()]);
  const form = within((await screen.findByRole("button", { name: "Log the score" })).closest("form") as HTMLElement);
  const log = async (came: string, times: number) => {
    fireEvent.change(form.getByLabelText(/Came off/), { target: { value: came } });
    fireEvent.blur(form.getByLabelText(/Came off/));
    const seen = asked.filter((one) => one.line.startsWith("GET handovers")).length;
    fireEvent.click(form.getByRole("button", { name: "Log the score" }));
    await waitFor(() => expect(sent(asked, "POST handovers/h1/scores").length).toBe(times));
    await waitFor(() =>
      expect(asked.filter((one) => one.line.startsWith("GET handovers")).length).toBeGreaterThan(seen),
    );
  };
  await log("9", 1);
  await log("9", 2);
  await log("8", 3);
  const ids = sent(asked, "POST handovers/h1/scores").map((one) => one.scores[0].id);
  expect(ids[1]).toBe(ids[0]);
  expect(ids[2]).not.toBe(ids[0]);
});
