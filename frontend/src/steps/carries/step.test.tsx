import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { UnitsProvider } from "../../app/context";
import { show } from "../../testing/show";
import CarriesStep from "./CarriesStep";

vi.mock("./Measure", () => ({
  Measure: ({ carries }: { carries: { used: number } }) => <p>measuring {carries.used}</p>,
}));
vi.mock("../../pictures/CarryLadder/CarryLadder", () => ({ CarryLadder: () => null, cellKey: () => "" }));

type Asked = { wind_head_mps: number; temperature_c: number; altitude_m: number; clubs: string };
let asked: Asked[] = [];
beforeEach(() => {
  asked = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const body = JSON.parse(await request.text()) as Asked;
    asked.push(body);
    const found = {
      cells: [], found: [], holes: [], overlaps: [], strikes: [], outliers: [], next: [], parameters: [], swings: [],
      rows: [], faced: [], rule: "", aside: 0, leave_one_out_m: null, used: body.wind_head_mps === 0 ? 7 : 70,
    }; // biome-ignore format: one line a few things
    return new Response(JSON.stringify(found), { headers: { "Content-Type": "application/json" } });
  });
});

const document = { measuring: { temperature_c: 11, altitude_m: 300, swings: [] }, bag: { wedges: [{}] } };
const step = () =>
  show(
    <UnitsProvider value={{ distance: "m", speed: "mps" }}>
      <CarriesStep />
    </UnitsProvider>,
    { server: { id: "f", revision: 1, strikes_key: "k", document } },
  );

it("from conditions that get no answer there is a way back to those that had one", async () => {
  step();
  const still = await screen.findByRole("radio", { name: "still" });
  await waitFor(() => expect(asked).toHaveLength(1));
  const answered = globalThis.fetch;
  vi.stubGlobal("fetch", () => Promise.reject(new TypeError("no network")));
  fireEvent.click(screen.getByRole("radio", { name: "4\u00a0m/s into" }));
  expect((await screen.findByRole("alert")).textContent).toBeTruthy();
  expect(screen.getByRole("radio", { name: "still" })).toBe(still);
  vi.stubGlobal("fetch", answered);
  fireEvent.click(still);
  await waitFor(() => expect(screen.queryByRole("alert")).toBeNull());
});

it("balls are measured in the air of the session, whatever wind the ladder is looked at in", async () => {
  step();
  fireEvent.click(await screen.findByRole("radio", { name: "4\u00a0m/s into" }));
  await waitFor(() => expect(asked.at(-1)?.wind_head_mps).toBe(4));
  fireEvent.click(screen.getByRole("radio", { name: "Measure" }));
  expect(await screen.findByText("measuring 7")).toBeTruthy();
  const still = { wind_head_mps: 0, temperature_c: 11, altitude_m: 300, clubs: "bag" };
  expect(asked).toContainEqual(expect.objectContaining(still));
  expect(screen.queryByText("measuring 70")).toBeNull();
});
