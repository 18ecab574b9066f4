import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { TABLES } from "../../api/tables";
import { useKeep } from "../../app/useKeep";
import { RememberedUnder } from "../../app/useRemembered";
import { show } from "../../testing/show";
import KeptPage from "./KeptPage";

const line = (id: string, label: string) => ({
  id, label, created_at: "2026-10-03T09:30:00Z", kept_by: "Ada", engine_version: "7", clubs: ["Hanger 50", "Barrow 55"],
  revision: 3, strikes: 0,
}); // biome-ignore format: one line a few things
const DOCUMENT = Object.fromEntries(TABLES.sections.map((name) => [name, { was: name }]));
const RESULT = {
  clubs: [{ loft_deg: 54, bounce_deg: 10, name: "Barrow 54" }], gain_strokes_round: 0.42, lofts: { gaps: [{ gap_m: 9 }] },
  engine_version: "7",
}; // biome-ignore format: one line a few things
const editAll = vi.fn();
const refresh = vi.fn(() => Promise.resolve());
let kept: object[] = [];
let keepHere: object | null = null;
let asked: { line: string; body: string }[] = [];
let refuse: string | null = null;
let refusedAs = 422;
let named = async (line?: object): Promise<object | undefined> => line;

beforeEach(() => {
  kept = [line("a", "before the trip"), line("b", "")];
  keepHere = null;
  asked = [];
  refuse = null;
  refusedAs = 422;
  named = async (line) => line;
  editAll.mockClear();
  refresh.mockClear();
  vi.stubGlobal("fetch", async (request: Request) => {
    const { pathname, search } = new URL(request.url);
    const path = pathname.split("/").slice(4).join("/");
    asked.push({
      line: `${request.method} ${path}${search}`,
      body: request.method === "GET" ? "" : await request.text(),
    });
    const json = (value: unknown, status = 200) =>
      new Response(JSON.stringify(value), { status, headers: { "Content-Type": "application/json" } });
    if (request.method !== "GET") {
      if (refuse !== null) return json({ code: "invalid", message: refuse }, refusedAs);
      if (request.method === "POST" && keepHere !== null) {
        kept = [keepHere, ...kept];
        return json(keepHere);
      }
      if (request.method === "DELETE") kept = kept.filter((one) => !path.endsWith((one as { id: string }).id));
      if (request.method === "PATCH") return json(await named(kept[0]));
      return new Response(null, { status: 204 });
    }
    if (path === "kept") return json({ kept });
    if (path.includes("/compare")) return json({ differences: [] });
    return json({ ...line(path.split("/")[1] ?? "", ""), document: DOCUMENT, result: RESULT, earlier: null });
  });
});
const page = () =>
  show(<KeptPage />, {
    server: { id: "f", revision: 4, strikes_key: "k", recommendation: null },
    draft: DOCUMENT,
    editAll,
    refresh,
  });
const sent = (method: string) => asked.filter((one) => one.line.startsWith(method));

it("nothing kept teaches how to keep, and none are counted before they are known", async () => {
  kept = [];
  page();
  expect(screen.queryByText("0 kept")).toBeNull();
  expect(await screen.findByText(/Press “Keep this proposal”/)).toBeTruthy();
  expect(screen.getByText("0 kept")).toBeTruthy();
});

/** The name "spring" on its way for the one chosen: its field, and what lets the answer come. */
async function spring() {
  let answer = () => {};
  named = (line) => new Promise((done) => (answer = () => done({ ...line, label: "spring" })));
  page();
  const name = (await screen.findByLabelText("Name of the one chosen")) as HTMLInputElement;
  fireEvent.change(name, { target: { value: "spring" } });
  fireEvent.click(screen.getByRole("button", { name: "Name it" }));
  await waitFor(() => expect(sent("PATCH")).toHaveLength(1));
  const arrive = async () => {
    answer();
    await waitFor(() =>
      expect(screen.getByRole("button", { name: "Name it" }).hasAttribute("data-loading")).toBe(false),
    );
  };
  return { name, arrive };
}

it("a name that is written on while another is on its way stays, in the place of that", async () => {
  const { name, arrive } = await spring();
  fireEvent.change(name, { target: { value: "spring, dry" } });
  await arrive();
  expect(name.value).toBe("spring, dry");
  fireEvent.click(screen.getByRole("button", { name: "Name it" }));
  await waitFor(() => expect(sent("PATCH")).toHaveLength(2));
  expect(JSON.parse(sent("PATCH")[1]?.body ?? "")).toEqual({ label: "spring, dry", was: "spring" });
});

it("what is written of another one while a name is on its way stays", async () => {
  const { name, arrive } = await spring();
  fireEvent.click(within(screen.getAllByRole("listitem")[1] as HTMLElement).getByRole("button"));
  fireEvent.change(name, { target: { value: "of the trip" } });
  await arrive();
  expect(name.value).toBe("of the trip");
});

it("working on from one brings what a proposal stands on, in one act, and leaves build, card and log as they are", async () => {
  page();
  fireEvent.click(await screen.findByRole("button", { name: "Work on from this one" }));
  expect(editAll).toHaveBeenCalledTimes(1);
  const brought = Object.keys(editAll.mock.lastCall?.[0]);
  expect(brought).toEqual(TABLES.proposal_sections);
  expect(brought).toContain("evidence");
  for (const later of ["build", "card", "after"]) expect(brought).not.toContain(later);
});

it("a name is given once it differs, and the fitting is read again", async () => {
  page();
  const name = (await screen.findByLabelText("Name of the one chosen")) as HTMLInputElement;
  const press = screen.getByRole("button", { name: "Name it" });
  expect([name.value, press.hasAttribute("disabled")]).toEqual(["before the trip", true]);
  fireEvent.change(name, { target: { value: "the first" } });
  fireEvent.click(press);
  await waitFor(() => expect(refresh).toHaveBeenCalled());
  expect(sent("PATCH").map((one) => [one.line, one.body])).toEqual([
    ["PATCH kept/a", '{"label":"the first","was":"before the trip"}'],
  ]);
});

it("a name that another screen gave meanwhile is told, and a second press is in the place of that", async () => {
  const { client } = page();
  const name = (await screen.findByLabelText("Name of the one chosen")) as HTMLInputElement;
  fireEvent.change(name, { target: { value: "the first" } });
  kept = [line("a", "spring"), line("b", "")];
  [refuse, refusedAs] = ["It was named “spring” on another screen meanwhile.", 409];
  fireEvent.click(screen.getByRole("button", { name: "Name it" }));
  expect((await screen.findByRole("alert")).textContent).toContain("“spring”");
  await client.invalidateQueries(); // as main.tsx does after a conflict
  await waitFor(() => expect(within(screen.getByRole("list")).getByText(/^spring/)).toBeTruthy());
  expect(name.value).toBe("the first");
  refuse = null;
  fireEvent.click(screen.getByRole("button", { name: "Name it" }));
  await waitFor(() => expect(sent("PATCH")).toHaveLength(2));
  expect(sent("PATCH")[1]?.body).toBe('{"label":"the first","was":"spring"}');
});

it("a name that is written for one is not the name of another that is chosen", async () => {
  page();
  fireEvent.change(await screen.findByLabelText("Name of the one chosen"), { target: { value: "the first" } });
  fireEvent.click(within(screen.getByRole("list")).getAllByRole("button")[1] as HTMLElement);
  expect((screen.getByLabelText("Name of the one chosen") as HTMLInputElement).value).toBe("");
  fireEvent.click(within(screen.getByRole("list")).getAllByRole("button")[0] as HTMLElement);
  expect((screen.getByLabelText("Name of the one chosen") as HTMLInputElement).value).toBe("the first");
});

it("one that is taken out is said so and comes back at a press", async () => {
  page();
  fireEvent.click(await screen.findByRole("button", { name: "Take it out" }));
  expect((await screen.findByRole("status")).textContent).toContain("is taken out.");
  await waitFor(() => expect(screen.getByText("1 kept")).toBeTruthy());
  fireEvent.click(screen.getByRole("button", { name: "Put it back" }));
  await waitFor(() => expect(sent("POST").map((one) => one.line)).toEqual(["POST kept/a/back"]));
  await waitFor(() => expect(screen.queryByText(/is taken out/)).toBeNull());
});

it("what the server does not take is said, and the name stays typed", async () => {
  refuse = "two have this name";
  page();
  const name = (await screen.findByLabelText("Name of the one chosen")) as HTMLInputElement;
  fireEvent.change(name, { target: { value: "twice" } });
  fireEvent.click(screen.getByRole("button", { name: "Name it" }));
  expect((await screen.findByRole("alert")).textContent).toBe("two have this name");
  expect(name.value).toBe("twice");
});

it("another kept one stands beside it when it is chosen, the fitting as it stands until then", async () => {
  page();
  const list = screen.getByRole("list");
  await waitFor(() => expect(within(list).getAllByRole("button")).toHaveLength(2));
  await waitFor(() => expect(sent("GET").some((one) => one.line === "GET kept/a/compare")).toBe(true));
  fireEvent.change(screen.getByRole("combobox"), { target: { value: "b" } });
  await waitFor(() => expect(sent("GET").some((one) => one.line === "GET kept/a/compare?other=b")).toBe(true));
  // chosen itself, it stands beside nothing of its own
  fireEvent.click(within(list).getAllByRole("button")[1] as HTMLElement);
  expect((screen.getByRole("combobox") as HTMLSelectElement).value).toBe("now");
});

function Keep() {
  const keep = useKeep();
  return (
    <button type="button" onClick={() => keep.mutate()}>
      keep
    </button>
  );
}

it("the one in sight stays when another screen keeps one, what is written of it too, and the one kept here comes in sight", async () => {
  const { client } = show(
    <RememberedUnder value="page-">
      <KeptPage />
      <Keep />
    </RememberedUnder>,
    {
      server: {
        id: "f",
        revision: 4,
        strikes_key: "k",
        to_come: false,
        recommendation: { ...RESULT, whole_rack: true },
      },
      saveState: "saved",
      refresh,
    },
  );
  const name = (await screen.findByLabelText("Name of the one chosen")) as HTMLInputElement;
  fireEvent.change(name, { target: { value: "half a name" } });
  kept = [line("c", "of another"), ...kept];
  await act(() => client.invalidateQueries({ queryKey: ["kept", "f"] }));
  expect((await screen.findAllByText(/^of another/)).length).toBeGreaterThan(0);
  expect(name.value).toBe("half a name");
  keepHere = line("d", "of this screen");
  fireEvent.click(screen.getByText("keep"));
  await waitFor(() => expect(name.value).toBe("of this screen"));
  fireEvent.click(screen.getAllByRole("button", { name: /^before the trip/ })[0] as HTMLElement);
  expect(name.value).toBe("half a name");
});
