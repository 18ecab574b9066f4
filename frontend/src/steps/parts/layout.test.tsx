import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { server, show } from "../../testing/show";
import { LayoutBar } from "./LayoutBar";
import { SavedMappings } from "./SavedMappings";

const onLayout = vi.fn();
beforeEach(() => onLayout.mockClear());
const READ = { kind: "csv", delimiter: "semicolon", encoding: "cp1252", header_row: 3, formulas: 0, sheets: [], sheet: null } as const; // biome-ignore format: one line
const bar = (read: object = {}) =>
  show(
    <LayoutBar
      read={{ ...READ, ...read } as typeof READ & { sheets: [] }}
      layout={{ delimiter: "semicolon" }}
      onLayout={onLayout}
    />,
  );
const choose = (label: string, option: string) => {
  fireEvent.click(screen.getByRole("combobox", { name: label }));
  fireEvent.click(screen.getByRole("option", { name: option, hidden: true }));
};

it("a file of text is read anew with another separator or encoding, its header looked for again", () => {
  bar();
  choose("Separator", "tab");
  expect(onLayout).toHaveBeenLastCalledWith({ delimiter: "tab", header_row: null });
  choose("Encoding", "Cyrillic");
  expect(onLayout).toHaveBeenLastCalledWith({ delimiter: "semicolon", encoding: "cp1251", header_row: null });
  expect(screen.queryByRole("combobox", { name: "Sheet" })).toBeNull();
});

it("a workbook has sheets instead, and says that formulas are read as they were saved", () => {
  bar({ kind: "xlsx", sheet: "one", sheets: ["one", "two"], formulas: 4 });
  choose("Sheet", "two");
  expect(onLayout).toHaveBeenLastCalledWith({ sheet: "two" });
  expect(screen.queryByRole("combobox", { name: "Separator" })).toBeNull();
  expect(screen.getByText(/Formulas in 4 cells/)).toBeTruthy();
});

it("the header's line is a whole number within the file's first lines", () => {
  bar();
  const line = screen.getByLabelText("Header in line") as HTMLInputElement;
  expect(line.value).toBe("3");
  fireEvent.change(line, { target: { value: "5" } });
  expect(onLayout).toHaveBeenLastCalledWith({ delimiter: "semicolon", header_row: 5 });
  onLayout.mockClear();
  fireEvent.change(line, { target: { value: "-1" } });
  expect(onLayout).not.toHaveBeenCalled();
});

it("mappings that are saved are listed with their day and forgotten one by one", async () => {
  const mapping = (id: string, name: string) => ({ id, name, kept_at: "2026-10-03T09:30:00Z" });
  let kept = [mapping("a", "range"), mapping("b", "simulator")];
  const asked: string[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const { pathname, search } = new URL(request.url);
    asked.push(`${request.method} ${pathname}${search}`);
    if (request.method === "DELETE") kept = kept.filter(({ id }) => !pathname.endsWith(id));
    if (request.method === "POST") kept = [mapping("a", "range"), ...kept];
    return request.method !== "GET"
      ? new Response(null, { status: 204 })
      : new Response(JSON.stringify({ mappings: kept }), { headers: { "Content-Type": "application/json" } });
  });
  show(<SavedMappings kind="strikes" />);
  const list = await screen.findByRole("list", { name: "Saved mappings" });
  expect(within(list).getAllByRole("listitem")[0]?.textContent).toContain("rangemapping, saved 3 Oct 2026");
  fireEvent.click(screen.getByRole("button", { name: "Forget it: range" }));
  await waitFor(() => expect(within(list).getAllByRole("listitem")).toHaveLength(1));
  expect(asked.slice(0, 2)).toEqual(["GET /api/mappings?kind=strikes", "DELETE /api/mappings/a"]);
  expect(screen.getByRole("status").textContent).toContain("range is forgotten.");
  fireEvent.click(screen.getByRole("button", { name: "Put it back" }));
  await waitFor(() => expect(within(list).getAllByRole("listitem")).toHaveLength(2));
  expect(asked).toContain("POST /api/mappings/a/back");
  expect(screen.queryByRole("status")).toBeNull();
});

it("without a saved mapping there is no list", async () => {
  server({});
  show(<SavedMappings kind="log" />);
  await new Promise((done) => setTimeout(done, 20));
  expect(screen.queryByRole("list")).toBeNull();
});

it("a mapping that cannot be forgotten says why and stays", async () => {
  vi.stubGlobal("fetch", async (request: Request) =>
    request.method === "DELETE"
      ? new Response(JSON.stringify({ code: "busy", message: "try again in a moment" }), { status: 503, headers: { "Content-Type": "application/json" } })
      : new Response(JSON.stringify({ mappings: [{ id: "a", name: "range", kept_at: "2026-10-03T09:30:00Z" }] }), { headers: { "Content-Type": "application/json" } }),
  ); // biome-ignore format: an answer a line
  show(<SavedMappings kind="strikes" />);
  fireEvent.click(await screen.findByRole("button", { name: "Forget it: range" }));
  expect((await screen.findByRole("alert")).textContent).toBe("try again in a moment");
  expect(screen.getByText("range")).toBeTruthy();
});
