import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import type { Strike } from "../api/client";
import { newStrike } from "../strikes/newStrike";
import { EntryMarks } from "./EntryMarks/EntryMarks";
import { markScale, markTicks } from "./scales";

const WIDTH = 906;

import { SoleMark } from "./SoleMark/SoleMark";

/** jsdom lays nothing out: every picture is as wide as its drawing. */
function laidOut(element: Element, width: number, height: number) {
  element.getBoundingClientRect = () => ({ left: 0, top: 0, width, height }) as DOMRect;
}

describe("SoleMark", () => {
  const press = (hand: "right" | "left", x: number, y: number, width = 20) => {
    const onMark = vi.fn();
    render(<SoleMark width={width} hand={hand} mark={null} onMark={onMark} />);
    const sole = screen.getByRole("group");
    laidOut(sole, 250, 100);
    fireEvent.click(sole, { clientX: x, clientY: y });
    return onMark.mock.calls[0] as [number, number];
  };

  it("has the toe on the left of a right-hander's sole and on the right of a left-hander's", () => {
    expect(press("right", 60, 40)[1]).toBeGreaterThan(10);
    cleanup();
    expect(press("left", 60, 40)[1]).toBeLessThan(-10);
  });

  it("counts from the leading edge back, and stays on the sole", () => {
    expect(press("right", 125, 22)).toEqual([0, expect.closeTo(0, 5)]);
    cleanup();
    expect(press("right", 125, 99, 17)[0]).toBe(17);
    cleanup();
    expect(press("right", 125, 2)[0]).toBe(0);
  });

  it("moves by the arrows, a millimetre at a time, towards the side they point to", () => {
    const onMark = vi.fn();
    render(<SoleMark width={20} hand="right" mark={{ back: 0, toe: 5 }} onMark={onMark} />);
    const sole = screen.getByRole("group", {
      name: "Mark on the sole: 0\u00a0mm behind the edge, 5\u00a0mm towards the toe",
    });
    for (const key of ["ArrowUp", "ArrowDown", "ArrowLeft", "ArrowRight", "x"]) fireEvent.keyDown(sole, { key });
    expect(onMark.mock.calls).toEqual([
      [0, 5],
      [1, 5],
      [0, 6],
      [0, 4],
    ]);
  });
});

describe("EntryMarks from the keyboard", () => {
  it("moves a mark by the arrows and takes it on Enter", () => {
    const onMark = vi.fn();
    const none = { outliers: [], mean: -34, spread: null, low: null, high: null, sand: false, entered: null };
    render(<EntryMarks strikes={[]} {...none} onMark={onMark} />);
    const ground = screen.getByRole("slider");
    ground.focus();
    for (const key of ["ArrowLeft", "ArrowLeft", "ArrowRight"]) fireEvent.keyDown(ground, { key });
    fireEvent.keyDown(ground, { key: "ArrowLeft", shiftKey: true });
    expect(ground.getAttribute("aria-valuetext")).toBe("45\u00a0mm behind");
    fireEvent.keyDown(ground, { key: "Enter" });
    expect(onMark.mock.calls).toEqual([[-45]]);
  });
});

describe("EntryMarks", () => {
  const marks = (strikes: Strike[], change: object = {}) => {
    const onMark = vi.fn();
    const given = { outliers: [], mean: null, spread: null, low: null, high: null, sand: true, entered: null };
    const { container } = render(<EntryMarks strikes={strikes} {...given} onMark={onMark} {...change} />);
    const picture = screen.getByRole("group", { name: "Where the sole landed" });
    laidOut(picture, WIDTH, 150);
    return { container, onMark, ground: container.querySelector("g[transform^='translate(0 ']") as Element };
  };

  it.each([
    ["behind the line, away from the ball", -40, "end"],
    ["ahead of it where there is no room behind", -110, "start"],
  ])("the words of the mean stand beside its line: %s", (_, mean, anchor) => {
    marks([], { mean });
    const words = screen.getByText(`mean ${-mean} mm behind`);
    const line = markScale(true, WIDTH)(mean);
    expect(words.getAttribute("text-anchor")).toBe(anchor);
    expect(Number(words.getAttribute("x")) - line).toBe(anchor === "end" ? -8 : 8);
  });

  it("gives the millimetres of the press, on a ruler that goes beyond the ball in sand", () => {
    const { onMark, ground } = marks([]);
    fireEvent.click(ground, { clientX: markScale(true, WIDTH)(-60) });
    fireEvent.click(ground, { clientX: markScale(true, WIDTH)(110) });
    expect(onMark.mock.calls).toEqual([[-60], [110]]);
    for (const tick of markTicks(true, WIDTH)) {
      expect(markScale(true, WIDTH)(tick)).toBeGreaterThan(80);
      expect(markScale(true, WIDTH)(tick)).toBeLessThan(WIDTH - 12);
    }
  });

  it("asks for the second press, and draws the mark from in to out", () => {
    const strike = { ...newStrike("own:1", 56, "sand"), entry_mm: -50, exit_mm: 100 };
    const { container } = marks([strike], { entered: -40 });
    expect(screen.getByText("in at 40 mm behind: now press where it came out")).toBeTruthy();
    const ends = [...container.querySelectorAll("line")].map((line) => Number(line.getAttribute("x2")));
    expect(ends.some((x) => Math.abs(x - markScale(true, WIDTH)(100)) < 0.01)).toBe(true);
  });
});
