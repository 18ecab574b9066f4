import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { show } from "../../testing/show";
import { Photos } from "./Photos";

const onChange = vi.fn();
const sent: string[] = [];
const ids: (string | null)[] = [];
let answer: () => Response;
beforeEach(() => {
  onChange.mockClear();
  sent.length = 0;
  ids.length = 0;
  vi.stubGlobal("fetch", async (request: Request) => {
    sent.push(`${request.method} ${new URL(request.url).pathname} ${request.headers.get("Content-Type")}`);
    ids.push(new URL(request.url).searchParams.get("id"));
    return answer();
  });
});
const json = (body: object, status = 200) => new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } }); // biome-ignore format: one line
const photos = (ids: string[]) => show(<Photos name="gap" photos={ids} onChange={onChange} />);
const pick = () => {
  const file = new File(["x"], "sole.jpg", { type: "image/jpeg", lastModified: 1 });
  fireEvent.change(screen.getByLabelText("Photo of gap"), { target: { files: [file] } });
};

it("a picture goes to the fitting as it is, and joins the others once the server has it", async () => {
  answer = () => json({ id: "new" });
  photos(["old"]);
  pick();
  await waitFor(() => expect(onChange).toHaveBeenCalledOnce());
  expect(onChange.mock.lastCall?.[0](["old", "since"]), "and those that came meanwhile").toEqual([
    "old",
    "since",
    "new",
  ]);
  expect(sent).toEqual(["POST /api/fittings/f/photos image/jpeg"]);
});

it("one whose answer was lost is sent again under its id, and another after it was taken under its own", async () => {
  answer = () => Promise.reject(new TypeError("no network")) as never;
  photos([]);
  pick();
  await screen.findByRole("alert");
  answer = () => json({ id: "new" });
  pick();
  await waitFor(() => expect(onChange).toHaveBeenCalledTimes(1));
  pick();
  await waitFor(() => expect(onChange).toHaveBeenCalledTimes(2));
  expect(ids[0]).toBeTruthy();
  expect(ids.map((id) => id === ids[0])).toEqual([true, true, false]);
});

it("one that the server does not take says why and is not among them", async () => {
  answer = () => json({ code: "invalid", message: "", faults: [{ field: "photo", message: "is no picture", value: "" }] }, 422); // biome-ignore format: one line
  photos([]);
  pick();
  expect((await screen.findByRole("alert")).textContent).toBe("The photo is no picture.");
  answer = () => Promise.reject(new TypeError("no network")) as never;
  pick();
  await waitFor(() => expect(screen.getByRole("alert").textContent).not.toContain("is no picture"));
  expect(onChange).not.toHaveBeenCalled();
});

it("a photo that is not kept here is said so, each is removed at a press, and a seventh is not asked for", () => {
  photos(["a", "b", "c", "d", "e", "f"]);
  fireEvent.error(screen.getByAltText("gap, 2"));
  expect(screen.getByText("not kept here")).toBeTruthy();
  expect(screen.queryByAltText("gap, 2")).toBeNull();
  expect(screen.getByRole("button", { name: "Add a photo" }).hasAttribute("disabled")).toBe(true);
  fireEvent.click(screen.getAllByRole("button", { name: "Remove" })[1] as HTMLElement);
  expect(onChange.mock.lastCall?.[0](["a", "b", "c"])).toEqual(["a", "c"]);
});
