import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { beforeEach, expect, it, vi } from "vitest";
import { type Begun, NOT_BEGUN, Note } from "./Note";
import { type Shot, waiting } from "./outbox";
import type { Fate, Opened } from "./usePage";

const lie = (key: string, ground: string, code: string) => ({ key: `${key}|${ground}`, shot_name: key, ground, code });
const opened = {
  page: {
    distance: "m",
    card: {
      lies: [lie("chip", "home", "own:0"), lie("sand_greenside", "home", "own:1"), lie("chip", "away", "own:1")],
    },
    far: {
      conditions: [
        ["into", "medium", "dry"],
        ["still", "medium", "dry"],
      ],
      pins: ["front", "middle"],
      distances_m: [60, 80, 100],
      shots: [
        { club: "gap", swing: "full" },
        { club: "sand", swing: "full" },
      ],
      answers: [
        [
          [[1], [1], [1]],
          [[1], [1], [1]],
        ],
        [
          [[1], [1], [1]],
          [[1], [0], [0]],
        ],
      ],
    },
  },
  clubs: [
    { code: "own:0", name: "gap", loft_deg: 50 },
    { code: "own:1", name: "sand", loft_deg: 56 },
    { code: "pw", name: "pitching wedge", loft_deg: 45 },
  ],
  results: [
    { key: "holed", name: "in the hole" },
    { key: "green", name: "on the green" },
  ],
  noted_shots: 7,
  noted_rounds: 1,
} as unknown as Opened;
const onShot = vi.fn();
function Shown({ unsent = [], fate = "waits" }: { unsent?: Shot[]; fate?: Fate }) {
  const [begun, setBegun] = useState<Begun>(NOT_BEGUN);
  const [away, setAway] = useState(false);
  return (
    <>
      <button type="button" onClick={() => setAway(!away)}>
        another part
      </button>
      {!away && (
        <Note opened={opened} token="t" unsent={unsent} fate={fate} begun={begun} onBegun={setBegun} onShot={onShot} />
      )}
    </>
  );
}
const shown = () => render(<Shown />);
const tap = (name: string) => fireEvent.click(screen.getByRole("button", { name }));

beforeEach(() => {
  localStorage.clear();
  onShot.mockClear();
});

it("three taps note a shot with the advised club first; it waits to be sent and can be taken back", () => {
  shown();
  tap("sand_greenside");
  expect(screen.getAllByRole("button")[2]?.textContent).toBe("sand advised");
  tap("sand advised");
  tap("on the green");
  expect(onShot).toHaveBeenCalledTimes(1);
  const [shot] = waiting("shots", "t");
  expect(shot).toMatchObject({ situation: "sand_greenside", ground: "home", club: "own:1", advised: "own:1" });
  expect(screen.getByText("1 shot of this round. With the studio: 7 shots of 1 round.", { exact: false })).toBeTruthy();
  tap("take it back");
  expect(waiting("shots", "t").map(({ id, removed }) => [id, removed])).toEqual([
    [shot?.id, false],
    [shot?.id, true],
  ]);
  expect(screen.getByText(/^0 shots of this round/)).toBeTruthy();
});

it("more is told of the last shot by taking it back and noting another under an id of its own", () => {
  shown();
  tap("chip");
  tap("pitching wedge");
  tap("on the green");
  fireEvent.click(screen.getByRole("radio", { name: "3" }));
  const sent = waiting("shots", "t");
  expect(sent.map(({ removed, holed_in }) => [removed, holed_in])).toEqual([
    [false, null],
    [true, null],
    [false, 3],
  ]);
  expect(sent[0]?.id).toBe(sent[1]?.id);
  expect(sent[2]?.id).not.toBe(sent[0]?.id);
  expect(sent[2]?.advised).toBe("own:0");
  cleanup();
  shown(); // the round of today is there when the page is opened again
  expect(screen.getByText(/^1 shot of this round/)).toBeTruthy();
  tap("begin another round");
  expect(screen.getByText(/^0 shots of this round/)).toBeTruthy();
});

it("an approach names the club that the page's own table has for its distance", () => {
  shown();
  tap("approach");
  expect(screen.getByRole("button", { name: "gap advised" })).toBeTruthy();
  fireEvent.change(screen.getByLabelText(/To the hole/), { target: { value: "60" } });
  fireEvent.pointerUp(screen.getByLabelText(/To the hole/));
  tap("sand advised");
  tap("in the hole");
  expect(waiting("shots", "t")[0]).toMatchObject({
    situation: "approach",
    distance_m: 60,
    club: "own:1",
    result: "holed",
  });
  expect(screen.queryByLabelText(/How far was left/)).toBeNull();
});

it("lies are those of one ground at a time", () => {
  shown();
  fireEvent.click(screen.getByRole("radio", { name: "away" }));
  expect(screen.queryByRole("button", { name: "sand_greenside" })).toBeNull();
  tap("chip");
  expect(screen.getByRole("button", { name: "sand advised" })).toBeTruthy();
});

it("the taps so far stay while another part of the page is looked at", () => {
  shown();
  tap("chip");
  tap("pitching wedge");
  tap("another part");
  tap("another part");
  expect(screen.getByRole("heading").textContent).toBe("What happened?");
  tap("back");
  expect(screen.getByRole("heading").textContent).toBe("Which club?");
  tap("back");
  expect(screen.getByRole("heading").textContent).toBe("Where did it lie?");
});

it("how far was left is told once a key moves it, and the slider stays in hand", () => {
  shown();
  tap("chip");
  tap("pitching wedge");
  tap("on the green");
  const slider = () => screen.getByLabelText(/How far was left/) as HTMLInputElement;
  slider().focus();
  fireEvent.keyUp(slider(), { key: "Tab" });
  expect(waiting("shots", "t")).toHaveLength(1);
  fireEvent.change(slider(), { target: { value: "6" } });
  fireEvent.keyUp(slider(), { key: "ArrowRight" });
  expect(waiting("shots", "t").at(-1)?.left_m).toBe(6);
  expect(document.activeElement).toBe(slider());
  fireEvent.keyUp(slider(), { key: "Shift" });
  expect(waiting("shots", "t")).toHaveLength(3);
});

it("how far was left is told where the phone took the finger for a scroll, and where the slider was only left", () => {
  shown();
  tap("chip");
  tap("pitching wedge");
  tap("on the green");
  const slider = () => screen.getByLabelText(/How far was left/) as HTMLInputElement;
  fireEvent.change(slider(), { target: { value: "6" } });
  fireEvent.pointerCancel(slider());
  expect(waiting("shots", "t").at(-1)?.left_m).toBe(6);
  fireEvent.change(slider(), { target: { value: "7" } });
  fireEvent.blur(slider());
  expect(waiting("shots", "t").at(-1)?.left_m).toBe(7);
});

it("what waits is counted by shots that stand, one that was told more of once", () => {
  shown();
  tap("chip");
  tap("pitching wedge");
  tap("on the green");
  fireEvent.click(screen.getByRole("radio", { name: "3" }));
  const unsent = waiting("shots", "t");
  cleanup();
  const { rerender } = render(<Shown unsent={unsent} />);
  expect(screen.getByText("1 shot waits in this phone for a connection.")).toBeTruthy();
  rerender(<Shown unsent={unsent.slice(0, 2)} fate={{ refused: "The page is closed." }} />);
  expect(screen.getByText("What was taken back waits in this phone: The page is closed.")).toBeTruthy();
});
