import { fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { show } from "../../testing/show";
import ImportPage from "./ImportPage";

const json = (body: object, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });
const RUN = { id: "i", name: "a.csv", state: "ready", counts: null };
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
