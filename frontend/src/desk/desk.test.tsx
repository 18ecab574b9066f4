import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { TABLES } from "../api/tables";
import { UnitsProvider } from "../app/context";
import { showAlone } from "../testing/show";
import { Dials } from "./Dials";
import ShotDesk from "./ShotDesk";
import { LIES, type Setup } from "./setup";

type Units = Parameters<typeof UnitsProvider>[0]["value"];
const METRES = { distance: "m", speed: "mps" } as Units;
const YARDS = { distance: "yd", speed: "mph" } as Units;
const [TURF, SAND] = ["turf", "sand"].map((kind) => Object.values(LIES).find((lie) => lie.ground.kind === kind)) as [Setup, Setup]; // biome-ignore format: one line

const onChange = vi.fn();
beforeEach(() => onChange.mockClear());
const dials = (setup: Setup, home = setup, units = METRES) =>
  showAlone(
    <UnitsProvider value={units}>
      <Dials setup={setup} home={home} onChange={onChange} />
    </UnitsProvider>,
  );
const said = (label: string) =>
  screen.getByText(label).parentElement?.parentElement?.querySelector("strong")?.textContent;

it("every figure of a swing that can be turned has its dial, between the bounds of the engine", () => {
  dials(TURF);
  for (const key of ["lean_deg", "attack_deg", "opening_deg", "speed_mps"]) {
    const figure = TABLES.swing.find((one) => one.key === key);
    const dial = screen.getByRole("slider", { name: figure?.words });
    expect([dial.getAttribute("aria-valuemin"), dial.getAttribute("aria-valuemax")]).toEqual([
      String(figure?.low),
      String(figure?.high),
    ]);
  }
  expect(screen.getAllByRole("slider")).toHaveLength(6);
});

it("signs are words: ahead and behind, down and up, level and square", () => {
  dials({ ...TURF, lean_deg: -2, attack_deg: -4.5, opening_deg: 0, entry_mm: -30 });
  const words = TABLES.swing.reduce<Record<string, string>>(
    (all, one) => Object.assign(all, { [one.key]: one.words }),
    {},
  );
  expect(said(words.lean_deg ?? "")).toBe("2° behind");
  expect(said(words.attack_deg ?? "")).toBe("4.5° down");
  expect(said(words.opening_deg ?? "")).toBe("square");
  expect(said(words.entry_mm ?? "")).toBe("30\u00a0mm behind");
  cleanup();
  dials({ ...TURF, lean_deg: 0.01, attack_deg: 1, opening_deg: 12, entry_mm: 5, speed_mps: 20 }, TURF, YARDS);
  expect(said(words.lean_deg ?? "")).toBe("level");
  expect(said(words.attack_deg ?? "")).toBe("1° up");
  expect(said(words.opening_deg ?? "")).toBe("12°");
  expect(said(words.entry_mm ?? "")).toBe("5\u00a0mm ahead");
  expect(said(words.speed_mps ?? "")).toBe("45\u00a0mph");
});

it("a dial of the ground turns the reading of the kind of ground that is there", () => {
  for (const setup of [TURF, SAND]) {
    dials(setup);
    const surface = TABLES.grounds.find((one) => one.key === setup.ground.kind);
    const reading = surface?.figures.find((one) => one.key === surface.reading);
    fireEvent.keyDown(screen.getByRole("slider", { name: reading?.words }), { key: "ArrowRight" });
    const ground = onChange.mock.lastCall?.[0].ground;
    const was = (setup.ground as unknown as Record<string, number>)[reading?.key ?? ""] ?? 0;
    expect(ground[reading?.key ?? ""]).toBeGreaterThan(was);
    expect({ ...ground, [reading?.key ?? ""]: was }).toEqual(setup.ground);
    cleanup();
  }
});

it("the desk asks about the lie and both heads, says what it cannot, and sends no head out of its range", async () => {
  const asked: { heads: { loft_deg: number }[]; ground: { kind: string }; twins: boolean }[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    asked.push(JSON.parse(await request.text()));
    return new Response(JSON.stringify({ code: "invalid", message: "the swing is too slow" }), { status: 422, headers: { "Content-Type": "application/json" } }); // biome-ignore format: one line
  });
  showAlone(
    <UnitsProvider value={METRES}>
      <ShotDesk />
    </UnitsProvider>,
  );
  expect((await screen.findByRole("alert")).textContent).toContain("the swing is too slow");
  expect(asked.at(-1)).toMatchObject({ twins: true, heads: [{ loft_deg: 56 }, { loft_deg: 56 }] });
  const other = Object.keys(LIES).find((name) => LIES[name]?.ground.kind !== asked.at(-1)?.ground.kind) ?? "";
  fireEvent.click(screen.getByRole("radio", { name: other }));
  await waitFor(() => expect(asked.at(-1)?.ground.kind).toBe(LIES[other]?.ground.kind));
  const loft = TABLES.head.find((one) => one.key === "loft_deg");
  const field = within(screen.getByRole("group", { name: "Against" })).getByLabelText(loft?.words ?? "");
  const before = asked.length;
  fireEvent.change(field, { target: { value: String((loft?.high ?? 0) + 1) } });
  await new Promise((done) => setTimeout(done, 30));
  expect(asked).toHaveLength(before);
  fireEvent.change(field, { target: { value: "58" } });
  await waitFor(() => expect(asked.at(-1)?.heads.map(({ loft_deg }) => loft_deg)).toEqual([56, 58]));
});
