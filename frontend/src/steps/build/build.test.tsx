import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Build } from "../../api/client";
import { TABLES } from "../../api/tables";
import { server, show } from "../../testing/show";
import { PriceList } from "./PriceList";

const [first, second] = TABLES.prices.map((one) => one) as unknown as { key: string; name: string; low: number }[];
const PRICES = Object.fromEntries(TABLES.prices.map(({ key }, n) => [key, 10 + n]));
const SHEET = {
  shafts: [{ code: "s1", name: "steel 110" }],
  grips: [{ code: "g1", name: "cord" }],
} as unknown as Build;
const field = (name: string) => screen.getByLabelText(new RegExp(`^${name}`)) as HTMLInputElement;
const typed = (input: HTMLInputElement, value: string) => {
  fireEvent.change(input, { target: { value } });
  fireEvent.blur(input);
};

it("prices and parts that were changed are saved together with the revision they were read at", async () => {
  const list = { prices: PRICES, parts: { s1: 4 }, revision: 7 };
  const asked = server({ "GET ": list, "PUT ": { ...list, revision: 8 } });
  show(<PriceList sheet={SHEET} />);
  await waitFor(() => expect(screen.getByText("Prices and parts of the studio")).toBeTruthy());
  const save = screen.getByRole("button", { name: "Save prices and parts" });
  expect(save.hasAttribute("disabled")).toBe(true);
  typed(field(first?.name ?? ""), "25");
  typed(field("steel 110, on the shelf"), "3");
  expect(screen.getByRole("status").textContent).toBe("Not saved yet.");
  fireEvent.click(save);
  await waitFor(() => expect(screen.getByRole("status").textContent).toBe("Saved."));
  const sent = JSON.parse(asked.find(({ line }) => line.startsWith("PUT"))?.body ?? "{}");
  expect(sent.revision).toBe(7);
  expect(sent.prices[first?.key ?? ""]).toBe(25);
  expect(sent.prices[second?.key ?? ""]).toBe(PRICES[second?.key ?? ""]);
  expect(sent.parts).toEqual({ s1: 3 });
});

it("a price that is typed while others are being saved is not saved yet, and stays", async () => {
  let arrive: (list: object) => void = () => {};
  const list = { prices: PRICES, parts: {}, revision: 7 };
  const asked = server({ "GET ": list, "PUT ": new Promise((done) => (arrive = done)) });
  show(<PriceList sheet={SHEET} />);
  await screen.findByText("Prices and parts of the studio");
  const save = screen.getByRole("button", { name: "Save prices and parts" });
  typed(field(first?.name ?? ""), "25");
  fireEvent.click(save);
  typed(field(second?.name ?? ""), "35");
  arrive({ ...list, prices: { ...PRICES, [first?.key ?? ""]: 25 }, revision: 8 });
  await waitFor(() => expect((save as HTMLButtonElement).disabled).toBe(false));
  expect([field(first?.name ?? "").value, field(second?.name ?? "").value]).toEqual(["25", "35"]);
  expect(screen.getByRole("status").textContent).toBe("Not saved yet.");
  fireEvent.click(save);
  const bodies = () => asked.filter(({ line }) => line.startsWith("PUT")).map(({ body }) => JSON.parse(body));
  await waitFor(() => expect(bodies()).toHaveLength(2));
  expect(bodies()[1]).toMatchObject({ revision: 8, prices: { [first?.key ?? ""]: 25, [second?.key ?? ""]: 35 } });
});

it("a list that comes while prices are typed is not written over unseen", async () => {
  const list = { prices: PRICES, parts: {}, revision: 7 };
  const asked = server({ "GET ": list, "PUT ": { ...list, revision: 10 } });
  const { client } = show(<PriceList sheet={SHEET} />);
  await screen.findByText("Prices and parts of the studio");
  typed(field(first?.name ?? ""), "25");
  client.setQueryData(["prices"], { ...list, prices: { ...PRICES, [first?.key ?? ""]: 60 }, revision: 9 });
  fireEvent.click(screen.getByRole("button", { name: "Save prices and parts" }));
  await waitFor(() => expect(screen.getByRole("status").textContent).toBe("Saved."));
  const sent = JSON.parse(asked.find(({ line }) => line.startsWith("PUT"))?.body ?? "{}");
  expect(sent.revision, "the server refuses it, and tells").toBe(7);
});

it("somebody else's list is read again and what was typed stays", async () => {
  const answers = [
    new Response(JSON.stringify({ prices: PRICES, parts: {}, revision: 7 }), { headers: { "Content-Type": "application/json" } }),
    new Response(JSON.stringify({ code: "conflict", message: "somebody else changed the list" }), { status: 409 }),
    new Response(JSON.stringify({ prices: PRICES, parts: { s1: 9 }, revision: 9 }), { headers: { "Content-Type": "application/json" } }),
  ]; // biome-ignore format: one line an answer
  const lines: string[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    lines.push(request.method);
    return answers.shift() as Response;
  });
  show(<PriceList sheet={SHEET} />);
  await waitFor(() => expect(screen.getByText("Prices and parts of the studio")).toBeTruthy());
  typed(field("cord, on the shelf"), "12");
  fireEvent.click(screen.getByRole("button", { name: "Save prices and parts" }));
  await waitFor(() => expect(lines).toEqual(["GET", "PUT", "GET"]));
  await waitFor(() => expect(field("steel 110, on the shelf").value).toBe("9"));
  expect(field("cord, on the shelf").value).toBe("12");
  expect(screen.getByRole("status").textContent).toContain("somebody else changed the list");
});
