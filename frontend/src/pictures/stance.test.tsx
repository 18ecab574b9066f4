import { cleanup, render, screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { DrillDrawing } from "./DrillDrawing/DrillDrawing";
import { ClubAtBall, Stance } from "./Stance/Stance";

/** Of a stance from above: the ball and both feet as they are drawn, in the picture's units, down is positive. */
function drawn(hand: "right" | "left", open = 0, ball = 0) {
  const { container } = render(<Stance ball={ball} width={300} open={open} hand={hand} words="from above" />);
  const number = (of: Element | null | undefined, name: string) => Number(of?.getAttribute(name));
  const circle = container.querySelector("circle");
  const [trail, lead] = [...container.querySelectorAll("rect")].map((foot) => ({
    x: number(foot, "x") + number(foot, "width") / 2,
    y: number(foot, "y") + number(foot, "height") / 2,
  }));
  const [turn = 0, x = 0, y = 0] = (
    container
      .querySelector("g")
      ?.getAttribute("transform")
      ?.match(/-?[\d.]+/g) ?? []
  ).map(Number);
  const by = (turn * Math.PI) / 180; // a picture turns clockwise
  const turned = (foot: { x: number; y: number } | undefined) => ({
    x: x + ((foot?.x ?? 0) - x) * Math.cos(by) - ((foot?.y ?? 0) - y) * Math.sin(by),
    y: y + ((foot?.x ?? 0) - x) * Math.sin(by) + ((foot?.y ?? 0) - y) * Math.cos(by),
  });
  cleanup();
  return { ball: { x: number(circle, "cx"), y: number(circle, "cy") }, trail: turned(trail), lead: turned(lead) };
}

it("the target is at the right: at the left hand of a right-hander, who faces down, and the other way for a left-hander", () => {
  for (const hand of ["right", "left"] as const) {
    const { ball, trail, lead } = drawn(hand);
    expect(lead.x).toBeGreaterThan(trail.x);
    // who faces down the picture has its right side at the left hand
    expect(Math.sign(ball.y - lead.y)).toBe(hand === "right" ? 1 : -1);
    expect(lead.y).toBeCloseTo(trail.y, 9);
  }
});

it.each([
  ["right", 20],
  ["left", -20],
] as const)("an open stance of a %s-hander has the lead foot back from the line", (hand, open) => {
  const { ball, trail, lead } = drawn(hand, open);
  expect(Math.abs(lead.y - ball.y)).toBeGreaterThan(Math.abs(trail.y - ball.y));
});

it("a ball forward of the middle lies nearer the target", () => {
  expect(drawn("right", 0, 60).ball.x).toBeGreaterThan(drawn("right").ball.x);
  expect(drawn("left", 0, 60).ball.x).toBeGreaterThan(drawn("left").ball.x);
});

it("the player's own lean is drawn where it is another by a degree or more", () => {
  const dashed = (own: number) => {
    const { container } = render(<ClubAtBall outline={[[0, 0], [20, 0], [10, 30]]} lean={6} own={own} words="at the ball" />); // biome-ignore format: one line
    const found = container.querySelectorAll("path[stroke-dasharray]").length;
    cleanup();
    return found;
  };
  expect([dashed(6), dashed(6.9), dashed(7), dashed(2)]).toEqual([0, 0, 1, 1]);
});

it("a face is opened to the right by a right-hander, who holds it from above, and to the left by a left-hander", () => {
  const parts = (hand: "right" | "left") => {
    render(<DrillDrawing drawing="face" name="Face first" hand={hand} />);
    const picture = screen.getByRole("img", { name: /^Face first/ });
    const found = [picture.querySelector("g")?.getAttribute("transform"), picture.querySelector("text")?.textContent];
    cleanup();
    return found;
  };
  expect(parts("right")).toEqual([null, "target"]);
  expect(parts("left")).toEqual(["translate(0 120) scale(1 -1)", "target"]);
});
