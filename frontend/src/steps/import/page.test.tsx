import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { forgetRemembered, RememberedUnder, rememberedOf } from "../../app/useRemembered";
import { show } from "../../testing/show";
import ImportPage from "./ImportPage";

const json = (body: object, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });
const RUN = { id: "i", name: "a.csv", state: "ready", counts: null, wrong: [], words: "" };
const choose = () =>
  fireEvent.change(screen.getByLabelText("File of strikes"), { target: { files: [new File(["a;b"], "a.csv")] } });

it("a file that is being looked at says so, and one that cannot be says why", async () => {
  let refuse: (answer: Response) => void = () => {};
  vi.stubGlobal("fetch", async (request: Request) => {
    if (request.method === "GET") return json(request.url.endsWith("/imports/i") ? RUN : { imports: [], mappings: [] });
    if (request.url.endsWith("/look")) return new Promise<Response>((done) => (refuse = done));
    return json(RUN);
  });
  show(<ImportPage />);
  choose();
  expect(await screen.findByText("Looking at the file …")).toBeTruthy();
  const faults = [{ field: "layout.encoding", message: "does not fit line 3 of the file", value: "", name: "" }];
  refuse(json({ code: "input", message: "wrong", faults }, 422));
  expect((await screen.findByRole("alert")).textContent).toBe("encoding does not fit line 3 of the file");
  expect(screen.queryByText("Looking at the file …")).toBeNull();
  choose();
  expect(await screen.findByText("Looking at the file …")).toBeTruthy();
  refuse(json({ code: "busy", message: "The server is busy.", faults: [] }, 503));
  expect((await screen.findByRole("alert")).textContent).toBe("The server is busy.");
});

const LOOK = {
  layout: { kind: "csv", delimiter: "semicolon", encoding: "cp1252", header_row: 1, formulas: 0, sheets: [], sheet: null },
  rows: 2, columns: [], fields: [], mapping: null, guess: { columns: [], decimal: "comma" }, saved_as: "last winter",
  club_words: [], swing_words: [], strikes: [], wrong: [], faults: [], question: null,
}; // biome-ignore format: one line a few things

it("decimal mark and filling down are of the mapping: the file is not read anew", async () => {
  const looks: { layout: object; mapping: { decimal: string; fill_down: boolean } | null }[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    if (request.url.endsWith("/look")) {
      looks.push(await request.json());
      return json(LOOK);
    }
    return json(request.url.endsWith("/imports/i") || request.method === "POST" ? RUN : { imports: [], mappings: [] });
  });
  show(<ImportPage />, { server: { id: "f", document: { bag: { wedges: [] }, measuring: { swings: [] } } } });
  choose();
  expect(await screen.findByText("Mapped as “last winter”, saved earlier.")).toBeTruthy();
  fireEvent.click(screen.getByRole("radio", { name: "1.5" }));
  fireEvent.click(screen.getByRole("checkbox", { name: /is the one above/ }));
  await waitFor(() => expect(looks.at(-1)?.mapping).toMatchObject({ decimal: "point", fill_down: true }));
  fireEvent.change(screen.getByLabelText("Header in line"), { target: { value: "2" } });
  await waitFor(() => expect(looks.at(-1)).toEqual({ layout: { header_row: 2 }, mapping: null }));
});

it("of the files taken before, the one that is being taken back shows it", async () => {
  const past = ["a", "b"].map((id) => ({
    ...RUN, id, name: `${id}.csv`, state: "taken", counts: { taken: 3 }, created_at: "2026-05-01T10:00:00Z", taken_by: "Ada",
  })); // biome-ignore format: one line a few things
  vi.stubGlobal("fetch", async (request: Request) =>
    request.method === "POST" ? new Promise<Response>(() => {}) : json({ imports: past, mappings: [] }),
  );
  show(<ImportPage />);
  const [one, other] = await screen.findAllByRole("button", { name: "Take it back" });
  fireEvent.click(one as HTMLElement);
  await waitFor(() => expect(one?.hasAttribute("data-loading")).toBe(true));
  expect(other?.hasAttribute("data-loading")).toBe(false);
});

it("a file that is being mapped is there again as it was, and one that was taken meanwhile is left to the list", async () => {
  let state = "ready";
  const looks: { mapping: { decimal: string } | null }[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    if (request.url.endsWith("/look")) {
      looks.push(await request.json());
      return json(LOOK);
    }
    if (request.url.endsWith("/imports/i")) return json({ ...RUN, state });
    return json(request.method === "POST" ? RUN : { imports: [], mappings: [] });
  });
  const step = () =>
    show(
      <RememberedUnder value={rememberedOf("fitter", "f")}>
        <ImportPage />
      </RememberedUnder>,
      { server: { id: "f", document: { bag: { wedges: [] }, measuring: { swings: [] } } } },
    );
  const first = step();
  choose();
  await screen.findByText("Mapped as “last winter”, saved earlier.");
  fireEvent.click(screen.getByRole("radio", { name: "1.5" }));
  await waitFor(() => expect(looks).toHaveLength(2));
  first.unmount();
  const again = step();
  await waitFor(() => expect(looks).toHaveLength(3));
  expect(looks[2]?.mapping).toMatchObject({ decimal: "point" });
  expect(((await screen.findByRole("radio", { name: "1.5" })) as HTMLInputElement).checked).toBe(true);
  again.unmount();
  const third = step();
  fireEvent.click(await screen.findByRole("button", { name: "Put the file away" }));
  expect(screen.getByText(/Drop a CSV or XLSX file here/)).toBeTruthy();
  third.unmount();
  const fourth = step();
  expect(screen.getByText(/Drop a CSV or XLSX file here/)).toBeTruthy();
  choose();
  await screen.findByText("Mapped as “last winter”, saved earlier.");
  fourth.unmount();
  looks.length = 3;
  state = "taken";
  step();
  await screen.findByText(/Drop a CSV or XLSX file here/);
  await waitFor(() => expect(screen.queryByText(/Looking at the file/)).toBeNull());
  expect(looks).toHaveLength(3);
  forgetRemembered("fitter");
});
