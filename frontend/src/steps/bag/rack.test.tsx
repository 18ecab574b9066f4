import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { parse } from "papaparse";
import { beforeEach, expect, it, vi } from "vitest";
import { TABLES } from "../../api/tables";
import { UnitsProvider } from "../../app/context";
import { show } from "../../testing/show";
import { RackTable } from "./RackTable";

const FIGURES = Object.fromEntries(TABLES.head.map(({ key }, n) => [key, 10 + n]));
const head = (code: string, name: string, loft_deg: number) => ({
  ...FIGURES, code, name, loft_deg, make: "forged", bend_limit_deg: 2.5, stock: 3,
}); // biome-ignore format: a head in a line
const HEADS = [head("HG50", "Hanger 50", 50), head("BN55", "Barrow 55", 55)];

const read = (sheets: string[] = [], sheet: string | null = null) => ({
  layout: { kind: sheets.length > 0 ? "xlsx" : "csv", sheets, sheet, encoding: "utf-8", delimiter: "comma", header_row: 1, formulas: 0 },
  header: ["code", "what"], first: [["A", "spring"]],
}); // biome-ignore format: one line a few things
let LOOKED: object = read();
const looks: object[] = [];
beforeEach(() => {
  LOOKED = read();
  looks.length = 0;
});

/** A server that answers in turn, and tells how it reads a file; what was asked, line by line. */
function answering(...answers: [number, object][]) {
  const asked: { line: string; body: string }[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    if (request.url.endsWith("/look")) {
      looks.push(await request.json());
      return new Response(JSON.stringify(LOOKED), { status: 200, headers: { "Content-Type": "application/json" } });
    }
    asked.push({ line: request.method, body: request.method === "GET" ? "" : await request.text() });
    const [status, body] = answers.shift() ?? [500, {}];
    return new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });
  });
  return asked;
}
const rack = (own: object[] | null = null) => {
  const refresh = vi.fn(async () => {});
  show(
    <UnitsProvider value={{ distance: "m", speed: "mps" }}>
      <RackTable />
    </UnitsProvider>,
    { server: { id: "f", revision: 4, document: { rack: own } }, saveState: "saved", refresh },
  );
  return refresh;
};
const table = () => within(screen.getByRole("table", { name: /^Rack/ }));
const rows = () => table().getAllByRole("row").slice(1).map((row) => row.querySelector("td")?.textContent); // biome-ignore format: one line
const pick = (csv: string) => {
  const file = new File([csv], "rack.csv", { type: "text/csv" });
  fireEvent.change(screen.getByLabelText("Rack as a table"), { target: { files: [file] } });
};

it("heads are found by name, code, loft or make", async () => {
  answering([200, { heads: HEADS, revision: 2 }]);
  rack();
  await waitFor(() => expect(rows()).toEqual(["HG50", "BN55"]));
  for (const [text, found] of [["barrow", ["BN55"]], ["hg", ["HG50"]], ["55", ["BN55"]], ["forged", ["HG50", "BN55"]]] as const) {
    fireEvent.change(screen.getByLabelText("Find a head"), { target: { value: text } });
    expect(rows()).toEqual(found);
  } // biome-ignore format: a search each
  expect(screen.getByText("Rack: 2 of 2 heads")).toBeTruthy();
});

it("a rack that is not read yet, or cannot be, is not an empty one, and none goes in its place", async () => {
  answering([503, { code: "busy", message: "The database does not answer." }]);
  rack();
  expect(screen.getByText("Reading the rack …")).toBeTruthy();
  await screen.findByText("The database does not answer.");
  expect(screen.queryByText(/0 heads/)).toBeNull();
  expect(screen.getByRole("button", { name: "Replace the rack from a table" })).toHaveProperty("disabled", true);
});

it("a rack from a file goes in the place of the one that was read", async () => {
  const asked = answering([200, { heads: HEADS, revision: 2 }], [200, { heads: HEADS.slice(1), revision: 3 }]);
  const refresh = rack();
  await waitFor(() => expect(rows()).toEqual(["HG50", "BN55"]));
  pick("code,name");
  await waitFor(() => expect(rows()).toEqual(["BN55"]));
  expect(JSON.parse(asked[1]?.body ?? "")).toEqual({ content: btoa("code,name"), layout: {}, revision: 2 });
  expect(screen.queryByLabelText("How the file was read")).toBeNull();
  expect(refresh).toHaveBeenCalledOnce();
});

it("the rack that was there before a file is put back at a press", async () => {
  const old = [{ ...head("HG50", 'Hanger "long", 50', 50), price: null }, ...HEADS.slice(1)];
  const asked = answering(
    [200, { heads: old, revision: 2 }],
    [200, { heads: HEADS.slice(1), revision: 3 }],
    [200, { heads: old, revision: 4 }],
  );
  rack();
  await waitFor(() => expect(rows()).toEqual(["HG50", "BN55"]));
  pick("code,name");
  fireEvent.click(await screen.findByRole("button", { name: "Put that one back" }));
  await waitFor(() => expect(rows()).toEqual(["HG50", "BN55"]));
  const { content, revision } = JSON.parse(asked[2]?.body ?? "");
  expect(revision).toBe(3);
  const [first] = parse<Record<string, string>>(atob(content), { header: true }).data;
  expect(first).toMatchObject({ code: "HG50", name: 'Hanger "long", 50', loft_deg: "50", stock: "3", price: "" });
});

it("a bad file leaves the rack as it was, and says where it is wrong", async () => {
  const faults = Array.from({ length: 8 }, (_, n) => ({ field: `line ${n + 2}`, value: "x", message: "no number" }));
  answering([200, { heads: HEADS, revision: 2 }], [400, { code: "input", message: "wrong", faults }]);
  const refresh = rack();
  await waitFor(() => expect(rows()).toEqual(["HG50", "BN55"]));
  pick("code,name");
  await waitFor(() => expect(screen.getByRole("alert").textContent).toContain("The rack stays as it was."));
  expect(screen.getByText("line 2 x: no number")).toBeTruthy();
  expect(screen.getByText("and 2 more")).toBeTruthy();
  expect(rows()).toEqual(["HG50", "BN55"]);
  expect(refresh).not.toHaveBeenCalled();
});

it("a file of which no rack came is shown as it was read, and is read otherwise", async () => {
  const faults = [{ field: "header", value: "", message: "lacks the columns code" }];
  const asked = answering(
    [200, { heads: HEADS, revision: 2 }],
    [422, { code: "input", message: "wrong", faults }],
    [200, { heads: HEADS.slice(1), revision: 3 }],
  );
  rack();
  await waitFor(() => expect(rows()).toEqual(["HG50", "BN55"]));
  pick("code;name");
  expect(await screen.findByText("spring")).toBeTruthy();
  fireEvent.click(screen.getByRole("combobox", { name: "Separator" }));
  fireEvent.click(screen.getByRole("option", { name: "semicolon", hidden: true }));
  await waitFor(() => expect(rows()).toEqual(["BN55"]));
  expect(screen.queryByText("spring")).toBeNull();
  const layout = { delimiter: "semicolon", header_row: null };
  expect(JSON.parse(asked.at(-1)?.body ?? "")).toEqual({ content: btoa("code;name"), layout, revision: 2 });
  expect(looks).toEqual([
    { content: btoa("code;name"), layout: {} },
    { content: btoa("code;name"), layout },
  ]);
});

it("another sheet of a workbook is read, and what is put back is the rack from before the workbook", async () => {
  const old = [...HEADS, head("ZZ60", "Zeal 60", 60)];
  const asked = answering(
    [200, { heads: old, revision: 2 }],
    [200, { heads: HEADS.slice(1), revision: 3 }],
    [200, { heads: HEADS.slice(0, 1), revision: 4 }],
    [200, { heads: old, revision: 5 }],
  );
  LOOKED = read(["2025", "2026"], "2025");
  rack();
  await waitFor(() => expect(rows()).toHaveLength(3));
  pick("PK");
  expect(await screen.findByText(/in the place of one of 3 heads/)).toBeTruthy();
  fireEvent.click(await screen.findByRole("combobox", { name: "Sheet" }));
  fireEvent.click(screen.getByRole("option", { name: "2026", hidden: true }));
  await waitFor(() => expect(rows()).toEqual(["HG50"]));
  expect(screen.getByText(/in the place of one of 3 heads/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Put that one back" }));
  await waitFor(() => expect(rows()).toHaveLength(3));
  expect(parse(atob(JSON.parse(asked[3]?.body ?? "").content), { header: true }).data).toHaveLength(3);
  expect(screen.queryByRole("combobox", { name: "Sheet" })).toBeNull();
});

it("two sheets chosen in a row go in one after the other, each in the place of the one before", async () => {
  const asked = answering(
    [200, { heads: HEADS, revision: 2 }],
    [200, { heads: HEADS.slice(1), revision: 3 }],
    [200, { heads: HEADS.slice(0, 1), revision: 4 }],
    [200, { heads: HEADS.slice(1), revision: 5 }],
  );
  LOOKED = read(["2025", "2026", "2027"], "2025");
  rack();
  await waitFor(() => expect(rows()).toHaveLength(2));
  pick("PK");
  await screen.findByRole("combobox", { name: "Sheet" });
  // with no moment between them in which an answer could come
  for (const name of ["2026", "2027"]) {
    fireEvent.click(screen.getByRole("combobox", { name: "Sheet" }));
    fireEvent.click(screen.getByRole("option", { name, hidden: true }));
  }
  await waitFor(() => expect(asked).toHaveLength(4));
  expect(asked.slice(1).map(({ body }) => JSON.parse(body).revision)).toEqual([2, 3, 4]);
});

it("a file that cannot be read says so, until another is in its place", async () => {
  answering([200, { heads: HEADS, revision: 2 }], [200, { heads: HEADS.slice(1), revision: 3 }]);
  rack();
  await waitFor(() => expect(rows()).toEqual(["HG50", "BN55"]));
  const gone = { name: "gone.csv", arrayBuffer: () => Promise.reject(new Error("gone")) };
  fireEvent.change(screen.getByLabelText("Rack as a table"), { target: { files: [gone] } });
  expect((await screen.findByRole("alert")).textContent).toContain("The rack stays as it was. The file cannot be read");
  pick("code,name");
  await waitFor(() => expect(rows()).toEqual(["BN55"]));
  expect(screen.queryByRole("alert")).toBeNull();
});

it("somebody else's rack is shown before anything is put in its place", async () => {
  const asked = answering(
    [200, { heads: HEADS, revision: 2 }],
    [409, { code: "conflict", message: "somebody else changed the rack" }],
    [200, { heads: HEADS.slice(0, 1), revision: 5 }],
    [200, { heads: HEADS, revision: 6 }],
  );
  rack();
  await waitFor(() => expect(rows()).toEqual(["HG50", "BN55"]));
  pick("mine");
  await waitFor(() => expect(rows()).toEqual(["HG50"]));
  fireEvent.click(screen.getByRole("button", { name: "Put yours in its place" }));
  await waitFor(() => expect(rows()).toEqual(["HG50", "BN55"]));
  expect(JSON.parse(asked[3]?.body ?? "")).toEqual({ content: btoa("mine"), layout: {}, revision: 5 });
});

it("a fitting with a rack of its own says so and can take the studio's", async () => {
  const asked = answering([200, { heads: HEADS, revision: 2 }], [200, {}]);
  const refresh = rack([head("X1", "odd one", 52)]);
  expect(rows()).toEqual(["X1"]);
  expect(screen.getByText("This fitting brought its own rack of 1 head.")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Use the studio's rack" }));
  await waitFor(() => expect(refresh).toHaveBeenCalledOnce());
  expect(JSON.parse(asked.at(-1)?.body ?? "")).toEqual({ revision: 4, drop_rack: true });
});
