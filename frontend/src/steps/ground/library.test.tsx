import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Ground } from "../../api/client";
import { TABLES } from "../../api/tables";
import { server, show } from "../../testing/show";
import { VenueLibrary } from "./VenueLibrary";

const SURFACES = TABLES.grounds.map(
  ({ key, source }) => [key, { [source]: "measured", readings_g: [], firmness_g: 90 }] as const,
);
const ground = (change: object = {}) =>
  ({
    ...Object.fromEntries(SURFACES), name: "home", share: 0.7, green: "medium", venue: "Scarp Down", season: "summer", read_on: null,
    ...change,
  }) as unknown as Ground; // biome-ignore format: a ground in a few lines
const record = (id: string, season: string, read_on: string, venue = "Scarp Down") => ({
  id, venue, season, read_on, kept_by: "Ada", surfaces: TABLES.grounds.map(({ key, words }) => ({ key, words })),
  ground: ground({ name: "as it was called then", share: 0.1, green: season === "winter" ? "soft" : "firm" }),
}); // biome-ignore format: a record in a few lines
const RECORDS = [
  record("w1", "winter", "2025-01-10"),
  record("w2", "winter", "2026-01-20"),
  record("s1", "summer", "2025-07-02"),
  record("o1", "winter", "2026-02-01", "Long Bottom"),
];
const library = (change: object = {}) => {
  const onChange = vi.fn();
  show(<VenueLibrary ground={ground(change)} onChange={onChange} />);
  return onChange;
};
const answers = (asked: { line: string; body: string }[], method: string) =>
  asked.filter(({ line }) => line.startsWith(method));

it("last winter's readings are the newest of a winter at this venue, and stay a copy", async () => {
  server({ "GET ": { records: RECORDS } });
  const onChange = library();
  fireEvent.click(await screen.findByRole("button", { name: "Use last winter's" }));
  const [next] = onChange.mock.lastCall ?? [];
  expect(next).toMatchObject({
    name: "home", share: 0.7, venue: "Scarp Down", season: "winter", read_on: "2026-01-20", green: "soft",
  }); // biome-ignore format: one line
  for (const { key, source } of TABLES.grounds) expect(next[key][source]).toBe("copied");
  expect(screen.queryByRole("button", { name: "Use last autumn's" })).toBeNull();
});

it("the venue is told by its name whatever the letters' size, and others stay out of its history", async () => {
  server({ "GET ": { records: RECORDS } });
  library({ venue: " scarp down" });
  fireEvent.click(await screen.findByRole("button", { name: "Its history: read 3 times" }));
  expect(screen.getAllByRole("row").length).toBe(1 + 3);
  expect(screen.queryByText("Long Bottom")).toBeNull();
});

it("a new venue has nothing to use and is kept with today as its day", async () => {
  const asked = server({ "GET ": { records: RECORDS }, "POST ": {} });
  library({ venue: "  Cold Coombe ", season: "autumn" });
  await waitFor(() => expect(answers(asked, "GET").length).toBe(1));
  expect(screen.queryByRole("button", { name: /^Use last/ })).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "Keep in the library" }));
  await waitFor(() => expect(answers(asked, "POST").length).toBe(1));
  const sent = JSON.parse(answers(asked, "POST")[0]?.body ?? "");
  expect(sent).toMatchObject({ venue: "Cold Coombe", season: "autumn" });
  expect(sent.read_on).toMatch(/^\d{4}-\d\d-\d\d$/);
});

it("without a name nothing is kept", () => {
  server({ "GET ": { records: [] } });
  library({ venue: null });
  expect(screen.getByRole("button", { name: "Keep in the library" }).hasAttribute("disabled")).toBe(true);
});

it("readings that were forgotten can be put back as they were", async () => {
  const asked = server({ "GET ": { records: RECORDS }, "DELETE ": null, "POST ": {} });
  library();
  fireEvent.click(await screen.findByRole("button", { name: /^Its history/ }));
  fireEvent.click(screen.getAllByRole("button", { name: "Forget" })[0] as HTMLElement);
  await screen.findByText("The readings of 10 Jan 2025 at Scarp Down are forgotten.", { exact: false });
  fireEvent.click(screen.getByRole("button", { name: "Put them back" }));
  await waitFor(() => expect(answers(asked, "POST").length).toBe(1));
  expect(JSON.parse(answers(asked, "POST")[0]?.body ?? "")).toMatchObject({ venue: "Scarp Down", season: "winter", read_on: "2025-01-10" }); // biome-ignore format: one line
});

it("a refusal is said", async () => {
  server({ "GET ": { records: RECORDS } });
  library();
  fireEvent.click(screen.getByRole("button", { name: "Keep in the library" }));
  await waitFor(() => expect(screen.getByRole("alert").textContent).not.toBe(""));
});
