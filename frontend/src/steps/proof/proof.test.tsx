import { cleanup, fireEvent, screen } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import type { Proof, ProofBall } from "../../api/client";
import { UnitsProvider } from "../../app/context";
import { show, showAlone } from "../../testing/show";
import { BallEntry } from "./BallEntry";
import { BlockStrip } from "./BlockStrip";

const onBall = vi.fn();
const onUndo = vi.fn();
beforeEach(() => vi.clearAllMocks());
const block = (place: number, club: number, situation = 0) => ({ place, club, situation });
const PROOF = {
  document: {
    balls_per_block: 2,
    candidates: [{ name: "old lob" }, { name: "Barrow 58" }],
    situations: [
      { shot: "pitch", ground: "home", name: "pitch", surface: "turf" },
      { shot: "sand_greenside", ground: "home", name: "greenside sand", surface: "sand" },
    ],
  },
  plan: { blocks: [block(0, 0), block(1, 1), block(2, 1, 1)] },
} as unknown as Proof;
const at = (place: number) => (
  <BallEntry proof={PROOF} block={block(place, 1) as never} here={[]} onBall={onBall} onUndo={onUndo} />
);
const entry = (situation = 0, units = { distance: "m", speed: "mps" }) =>
  show(
    <UnitsProvider value={units as Parameters<typeof UnitsProvider>[0]["value"]}>
      <BallEntry proof={PROOF} block={block(4, 1, situation) as never} here={[]} onBall={onBall} onUndo={onUndo} />
    </UnitsProvider>,
  );
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(new RegExp(label)), { target: { value } });

it("one key is a ball of the block's club, with whatever was typed of it, in metres", () => {
  entry(0, { distance: "yd", speed: "mph" });
  type("To the hole", "3,5");
  type("Entry", "-30");
  fireEvent.keyDown(document.body, { key: "h" });
  expect(onBall.mock.lastCall?.[0]).toMatchObject({
    club: 1, situation: 0, block: 4, outcome: "heavy", entry_mm: -30, carry_m: null, origin: "typed", simulated: false,
  }); // biome-ignore format: one line a few things
  expect(onBall.mock.lastCall?.[0].to_hole_m).toBeCloseTo(3.2, 2);
  expect((screen.getByLabelText(/To the hole/) as HTMLInputElement).value).toBe("");
});

it("what is no number holds the ball, whichever key is pressed", () => {
  entry();
  type("Carry", "far");
  fireEvent.click(screen.getByRole("button", { name: /good/ }));
  expect(onBall).not.toHaveBeenCalled();
  expect(screen.getByText("must be a number")).toBeTruthy();
  type("Carry", "14");
  fireEvent.click(screen.getByRole("button", { name: /good/ }));
  expect(onBall.mock.lastCall?.[0]).toMatchObject({ carry_m: 14, outcome: "good" });
});

it("what no ball does is said at its field in the reader's unit, and holds the ball", () => {
  entry(0, { distance: "yd", speed: "mph" });
  type("Carry", "250");
  fireEvent.keyDown(document.body, { key: "g" });
  expect(onBall).not.toHaveBeenCalled();
  expect(screen.getByRole("alert").textContent).toBe("1.1 to 218.7\u00a0yd");
  type("Carry", "218.7");
  type("Entry", "-300");
  expect(screen.getByRole("alert").textContent).toBe("−250 to 120\u00a0mm");
  expect(screen.queryByText(/this is the next ball's/)).toBeNull();
  type("Entry", "");
  fireEvent.keyDown(document.body, { key: "g" });
  expect(onBall.mock.lastCall?.[0].carry_m).toBeCloseTo(199.98, 2);
});

it("Enter takes a measured ball without an outcome, and nothing of nothing", () => {
  entry();
  fireEvent.keyDown(screen.getByLabelText(/Carry/), { key: "Enter" });
  expect(onBall).not.toHaveBeenCalled();
  type("Carry", "15");
  fireEvent.keyDown(screen.getByLabelText(/Carry/), { key: "Enter" });
  expect(onBall.mock.lastCall?.[0]).toMatchObject({ carry_m: 15, outcome: null });
});

it("figures are typed on in the same field when a block is full, and half a figure stays with its block", () => {
  const shown = showAlone(at(0));
  const hole = () => screen.getByLabelText(/To the hole/) as HTMLInputElement;
  hole().focus();
  type("To the hole", "4");
  fireEvent.keyDown(hole(), { key: "Enter" });
  type("Carry", "1");
  shown.again(at(1));
  expect(document.activeElement).toBe(hole());
  type("To the hole", "6");
  fireEvent.keyDown(hole(), { key: "Enter" });
  const taken = onBall.mock.calls.map(([ball]) => [ball.block, ball.to_hole_m, ball.carry_m]);
  expect(taken).toEqual([[0, 4, null], [1, 6, null]]); // biome-ignore format: one line
  shown.again(at(0));
  expect((screen.getByLabelText(/Carry/) as HTMLInputElement).value).toBe("1");
});

it("a ball is left in only in sand, and its mark is drawn there", () => {
  entry(0);
  expect(screen.queryByRole("button", { name: /left in/ })).toBeNull();
  expect(screen.queryByRole("img", { name: "The mark beside a note" })).toBeNull();
  cleanup();
  entry(1);
  expect(screen.getByRole("button", { name: /left in/ })).toBeTruthy();
  expect(screen.getByRole("img", { name: "The mark beside a note" })).toBeTruthy();
});

it("the remote knows good and heavy, and the last ball is taken out by a key", () => {
  entry();
  fireEvent.keyDown(document.body, { key: "PageDown" });
  fireEvent.keyDown(document.body, { key: "PageUp" });
  expect(onBall.mock.calls.map(([ball]) => ball.outcome)).toEqual(["good", "heavy"]);
  const [one, two] = onBall.mock.calls.map(([ball]) => ball.id);
  expect(one).not.toBe(two);
  fireEvent.keyDown(document.body, { key: "u" });
  expect(onUndo).toHaveBeenCalledOnce();
});

it("the strip counts what is hit of every block, without balls that were set aside", () => {
  const ball = (place: number, set_aside: string | null = null) =>
    ({ block: place, set_aside }) as unknown as ProofBall;
  show(<BlockStrip proof={PROOF} balls={[ball(0), ball(0), ball(1), ball(1, "misread")]} now={1} />);
  const blocks = screen.getAllByRole("listitem");
  expect(blocks.map((one) => one.textContent)).toEqual(["A2/2", "B1/2", "B0/2"]);
  expect(blocks.map((one) => one.getAttribute("data-done"))).toEqual(["true", "false", "false"]);
  expect(blocks.map((one) => one.getAttribute("aria-current"))).toEqual([null, "step", null]);
});
