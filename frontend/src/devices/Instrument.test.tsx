import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { inFitting, server, show } from "../testing/show";
import { Instrument, meanOf } from "./Instrument";
import { type Device, stateWords } from "./useDevices";

const device = (change: Partial<Device> = {}): Device => ({
  kind: "hammer",
  available: true,
  wanted: true,
  state: "live",
  device: "stand-in hammer",
  simulated: true,
  target: "home",
  taken: 2,
  refused: 0,
  last_refusal: "",
  ...change,
});
const reading = (id: string, peak_g: number, set_aside: string | null = null) => ({
  id,
  kind: "hammer",
  target: "home",
  figures: { peak_g },
  simulated: true,
  set_aside,
});
const READINGS = {
  readings: [reading("a", 90), reading("b", 96), reading("c", 150, "on a stone")],
  summaries: [
    {
      kind: "hammer",
      target: "home",
      count: 2,
      aside: 1,
      simulated: true,
      figures: [{ key: "peak_g", mean: 93, spread: 4.2, count: 2 }],
      words: "medium",
    },
  ],
};
const onUse = vi.fn();

const part = (used = false) => (
  <Instrument
    kind="hammer"
    target="home"
    name="home"
    told={(figures) => `${figures.peak_g} g`}
    says={(summary) => `${meanOf(summary, "peak_g")} g: ${summary.words}`}
    used={() => used}
    onUse={onUse}
  />
);
const hammer = (used = false) => show(part(used));

beforeEach(() => onUse.mockClear());

describe("an instrument", () => {
  it("shows what it read, and hands over the readings that count", async () => {
    server({ "GET devices": { devices: [device()] }, "GET readings": READINGS });
    hammer();
    expect(await screen.findByText("93 g: medium")).toBeTruthy();
    expect(screen.getByText(/from 2, 1 set aside, simulated/)).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Use them" }));
    expect(onUse.mock.calls[0]?.[1].map((r: { id: string }) => r.id)).toEqual(["a", "b"]);
  });

  it("sets a reading aside at a press, and counts it again at the next", async () => {
    const asked = server({
      "GET devices": { devices: [device()] },
      "GET readings": READINGS,
      "PATCH readings": null,
    });
    hammer(true);
    fireEvent.click(await screen.findByRole("button", { name: "90 g" }));
    fireEvent.click(screen.getByRole("button", { name: "150 g" }));
    const told = () => asked.filter((a) => a.line.startsWith("PATCH"));
    await waitFor(() => expect(told()).toHaveLength(2));
    expect(told().map((a) => [a.line, a.body])).toEqual([
      ["PATCH readings/a", '{"set_aside":"set aside by hand"}'],
      ["PATCH readings/c", '{"set_aside":null}'],
    ]);
    expect(screen.getByText("The fitting stands on them.")).toBeTruthy();
  });

  it("waits for a ground that is just being saved, and for nothing else", async () => {
    const asked = server({
      "GET devices": { devices: [device({ wanted: false })] },
      "GET readings": { readings: [], summaries: [] },
      "PUT devices/hammer": device(),
    });
    const put = () => asked.filter(({ line }) => line.startsWith("PUT"));
    const { again } = show(part(), { saveState: "saving" });
    fireEvent.click(await screen.findByRole("button", { name: "Read home with the drop hammer" }));
    await new Promise((done) => setTimeout(done, 100));
    expect(put()).toEqual([]);
    again(inFitting(part(), { saveState: "saved" }));
    await waitFor(() => expect(put()).toHaveLength(1));
    again(inFitting(part(), { saveState: "refused" }));
    fireEvent.click(await screen.findByRole("button", { name: "Read home with the drop hammer" }));
    await waitFor(() => expect(put()).toHaveLength(2));
  });

  it("connected to another ground, it is asked over to this one", async () => {
    const asked = server({
      "GET devices": { devices: [device({ target: "away" })] },
      "GET readings": { readings: [], summaries: [] },
      "PUT devices/hammer": device(),
    });
    hammer();
    expect(await screen.findByText("connected elsewhere")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Read home with the drop hammer" }));
    await waitFor(() => expect(asked.some((a) => a.body === '{"wanted":true,"target":"home"}')).toBe(true));
  });
});

it("says in words how a device goes", () => {
  expect(stateWords(device({ available: false }), true)).toBe("no drop hammer is set up");
  expect(stateWords(device({ wanted: false }), true)).toBe("off");
  expect(stateWords(device(), false)).toContain("no word from the server");
  expect(stateWords(device({ state: "lost" }), true)).toBe("lost, trying again");
  expect(stateWords(device({ state: "connecting" }), true)).toBe("connecting");
  expect(stateWords(device({ simulated: false }), true)).toBe("live");
  expect(stateWords(device(), true)).toBe("live, simulated");
});
