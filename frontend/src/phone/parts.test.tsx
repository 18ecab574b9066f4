import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { FlagRuler } from "../pictures/FlagRuler/FlagRuler";
import { Far } from "./Far";
import { waiting } from "./outbox";
import { Practise } from "./Practise";
import type { Opened, Page } from "./usePage";

beforeEach(() => localStorage.clear());
const FAR = {
  distance: "m",
  far: {
    distances_m: [40, 45, 50],
    conditions: [
      ["into", "medium", "dry"],
      ["still", "medium", "dry"],
    ],
    pins: ["front", "middle", "back"],
    shots: [
      { club: "gap", loft_deg: 50, swing: "nine o'clock" },
      { club: "sand", loft_deg: 55.5, swing: "full" },
    ],
    figures_m: [
      [
        [36, 4],
        [40, 2],
      ],
      [
        [41, 5.4],
        [46, -0.3],
      ],
    ],
    answers: [
      [[[0], [0], [0]], [[0], [1], [1]], [[1], [1], [1]]],
      [[[0], [0], [0]], [[0, 1], [1, 0], [1]], [[1], [1], [1]]],
    ],
  },
} as unknown as Page; // biome-ignore format: answers as a table
const far = (distance = "m") => render(<Far page={{ ...FAR, distance } as Page} />);
const answers = () => screen.getAllByRole("listitem").map((one) => one.textContent);

it("answers for the distance, wind and flag that are set, best first, with carry and run", () => {
  far();
  expect(screen.getByRole("heading").textContent).toBe("45\u00a0m to the flag");
  expect(answers()).toEqual(["55.5°, fullsand: carries 46, runs 0", "50°, nine o'clockgap: carries 41, runs 5"]);
  fireEvent.click(screen.getByRole("radio", { name: "into" }));
  expect(answers()).toEqual(["55.5°, fullsand: carries 40, runs 2"]);
  fireEvent.click(screen.getByRole("radio", { name: "front flag" }));
  expect(answers()).toEqual(["50°, nine o'clockgap: carries 36, runs 4"]);
});

const steps = () => ({
  ruler: screen.getByRole("slider"),
  reads: () => screen.getByRole("slider").getAttribute("aria-valuetext"),
});

it("goes by steps and stops at both ends", () => {
  far();
  const { reads } = steps();
  for (let n = 0; n < 4; n++) fireEvent.click(screen.getByRole("button", { name: "Longer" }));
  expect(reads()).toBe("50\u00a0m");
  for (let n = 0; n < 4; n++) fireEvent.click(screen.getByRole("button", { name: "Shorter" }));
  expect(reads()).toBe("40\u00a0m");
});

it("the ruler follows the thumb, not past its ends, and a tap and the keys set it, too", () => {
  far();
  const { ruler, reads } = steps();
  fireEvent.pointerDown(ruler, { clientX: 100 });
  fireEvent.pointerMove(ruler, { clientX: 100 - 5 * 9 });
  expect(screen.getByRole("heading").textContent).toBe("50\u00a0m to the flag");
  fireEvent.pointerMove(ruler, { clientX: 100 + 5 * 9 });
  expect(reads()).toBe("40\u00a0m");
  fireEvent.pointerMove(ruler, { clientX: 900 });
  fireEvent.pointerUp(ruler, { clientX: 900 });
  fireEvent.pointerMove(ruler, { clientX: 100 });
  expect(reads()).toBe("40\u00a0m");
  fireEvent.pointerDown(ruler, { clientX: 5 * 9 }); // the middle is at nothing here
  fireEvent.pointerUp(ruler, { clientX: 5 * 9 + 1 });
  expect(reads()).toBe("45\u00a0m");
  fireEvent.keyDown(ruler, { key: "ArrowRight" });
  expect(reads()).toBe("50\u00a0m");
  fireEvent.keyDown(ruler, { key: "PageDown" });
  expect(reads()).toBe("40\u00a0m");
});

it("the shots stand on the ruler where they land, one that is out of sight at its end", () => {
  far();
  const found = (what: string) => [...screen.getByRole("slider").querySelectorAll(what)];
  const names = () => found("text").map((one) => one.textContent);
  expect(names()).toEqual(expect.arrayContaining(["m", "40", "50", "55.5° full", "50° nine o'clock"]));
  expect(found("circle").map((one) => Number(one.getAttribute("cx")))).toEqual([453 + 9, 453 - 4 * 9]);
  cleanup();
  const shot = (name: string, carry: number) => ({ name, short: name.split(" ")[0] ?? "", carry, rests: carry + 1 });
  const shots = [shot("50° near", 5), shot("46° far", 160), shot(`52° ${"long ".repeat(40)}`, 84)];
  render(<FlagRuler distances={[80]} at={0} unit="m" shots={shots} onMove={() => {}} />);
  expect(names()).toEqual(expect.arrayContaining(["‹ 50°", "46° ›"]));
  expect(names()).toContain("52°");
});

it("a reader of yards sees no metre", () => {
  far("yd");
  expect(screen.getByRole("heading").textContent).toBe("49\u00a0yd to the flag");
  expect(answers()[0]).toBe("55.5°, fullsand: carries 50, runs 0");
});

it("where nothing is known for a lie nothing is claimed", () => {
  far();
  fireEvent.click(screen.getByRole("radio", { name: "wet" }));
  expect(screen.queryAllByRole("listitem")).toEqual([]);
});

const drill = (change: object = {}) => ({
  key: "towel", name: "Towel behind the ball", count: 3, mark: 2, set_up: "a towel", do: "miss it", score: "clean ones",
  worth_strokes_round: 0.24, beat: null, stop: "Stop when it hurts.", drawing: { lines: [], marks: [] }, ...change,
}); // biome-ignore format: a drill in a few lines
const onScore = vi.fn();
const practise = (drills: object[], standings: object[] = [], more: object = {}) =>
  render(
    <Practise
      page={{ made_on: "2026-05-01", card: { drills, practice_weeks: 4 } } as unknown as Page}
      scores={[]}
      standings={standings as unknown as Opened["standings"]}
      token="t"
      unsent={[]}
      fate="waits"
      onScore={onScore}
      {...more}
    />,
  );
const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));

it("a score is counted ball by ball, the last one taken back, and kept once in the phone", () => {
  practise([drill()]);
  press("it came off");
  press("it did not");
  press("take the last one back");
  expect(screen.getByText("Ball 2 of 3, 1 so far")).toBeTruthy();
  press("it came off");
  expect(waiting("scores", "t")).toEqual([]);
  press("it did not");
  expect(waiting("scores", "t")).toMatchObject([{ drill: "towel", score: 2, count: 3 }]);
  expect(onScore).toHaveBeenCalledTimes(1);
  expect(screen.getByText("Ball 1 of 3")).toBeTruthy();
});

it("another drill begins at its first ball", () => {
  practise([drill(), drill({ key: "line", name: "Line in the sand" })]);
  press("it came off");
  fireEvent.click(screen.getByRole("radio", { name: "Line in the sand" }));
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("Line in the sand");
  expect(screen.getByText("Ball 1 of 3")).toBeTruthy();
});

it("balls that were counted are there when the phone is taken up again, drill by drill and day by day", () => {
  const two = [drill(), drill({ key: "line", name: "Line in the sand" })];
  practise(two);
  press("it came off");
  press("it did not");
  fireEvent.click(screen.getByRole("radio", { name: "Line in the sand" }));
  press("it came off");
  cleanup();
  practise(two);
  expect(screen.getByText("Ball 3 of 3, 1 so far")).toBeTruthy();
  press("it came off");
  expect(waiting("scores", "t")).toMatchObject([{ drill: "towel", score: 2 }]);
  cleanup();
  practise(two);
  expect(screen.getByText("Ball 1 of 3")).toBeTruthy();
  cleanup();
  vi.useFakeTimers({ now: Date.now() + 86_400_000, toFake: ["Date"] });
  practise(two);
  fireEvent.click(screen.getByRole("radio", { name: "Line in the sand" }));
  expect(screen.getByText("Ball 1 of 3")).toBeTruthy();
});

it("the mark goes up with the level, and what to do next is said", () => {
  practise([drill()], [{ drill: "towel", level: 1, levels: 3, mark: 3, advice: "next level" }]);
  expect(screen.getByText("3 of 3, level 2 of 3")).toBeTruthy();
  expect(screen.getByText("Passed three times in a row: the mark is higher now.")).toBeTruthy();
});

it("says how many scores wait, and why if the studio does not take them", () => {
  const unsent = [{ id: "1", drill: "towel", score: 2, count: 3, on: "2026-05-02" }];
  practise([drill()], [], { unsent });
  expect(screen.getByText("1 score waits in this phone for a connection.")).toBeTruthy();
  cleanup();
  practise([drill()], [], { unsent: [...unsent, { ...unsent[0], id: "2" }], fate: { refused: "The page is closed." } });
  expect(screen.getByText("2 scores wait in this phone: The page is closed.")).toBeTruthy();
  cleanup();
  practise([drill()], [], { unsent, fate: "sending" });
  expect(screen.getByText("1 score is on its way to the studio.")).toBeTruthy();
});

it.each([
  ["2026-05-01", 1],
  ["2026-05-08", 2],
  ["2026-07-30", 4],
  ["2026-04-20", 1],
])("on %s it is week %i of the plan", (now, week) => {
  vi.useFakeTimers({ now: new Date(`${now}T12:00:00`) });
  practise([drill()]);
  expect(screen.getByText(`Week ${week} of 4: twice a week, 3 a go.`)).toBeTruthy();
});

it("without a drill nothing is to be counted", () => {
  practise([]);
  expect(screen.getByText("The studio has prescribed no drill.")).toBeTruthy();
  expect(screen.queryAllByRole("button")).toEqual([]);
});
