import { fireEvent, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import type { Strike } from "../../api/client";
import { newStrike } from "../../strikes/newStrike";
import { AskReason } from "../../strikes/StrikeList";
import type { StrikeQueue } from "../../strikes/useStrikeQueue";
import { show, showAlone } from "../../testing/show";
import { About } from "./About";
import { LastStrike } from "./LastStrike";
import { Plan } from "./Plan";
import { StrikeForm } from "./StrikeForm";
import { headline, told } from "./words";

const SI = { distance: "m", speed: "mps" } as const;
const strike = (change: Partial<Strike> = {}): Strike => ({ ...newStrike("own:1", 56, "pitch"), ...change });

it("counts what is still to hit: ten of practice and five of the others", () => {
  const onChoose = vi.fn();
  const stations = [
    ["pitch", "pitch"],
    ["practice", "practice"],
    ["sand", "sand"],
  ] as const;
  show(<Plan stations={stations} counts={{ pitch: 4, practice: 12 }} current="pitch" onChoose={onChoose} />);
  expect(screen.getByRole("heading").textContent).toBe("6 still to hit");
  fireEvent.click(screen.getByRole("button", { name: "practice 12 hit, 10 wanted" }));
  expect(onChoose).toHaveBeenCalledWith("practice");
  expect(screen.getByRole("button", { name: "pitch 4 of 5" })).toBeTruthy();
});

it("the last strike is large, with the sand's mark in place of the speed where there is one", () => {
  show(
    <LastStrike
      strike={strike({ entry_mm: -48, exit_mm: 98, club_speed_mps: 20 })}
      names={{ pitch: "pitch" }}
      unread={null}
    />,
  );
  const last = screen.getByLabelText("Last strike");
  expect(last.textContent).toContain("−48mm");
  expect(last.textContent).toContain("mark in the sand146mm");
  expect(last.textContent).not.toContain("head speed");
});

it("no strike is denied while nobody knows of those before", () => {
  const shown = showAlone(<LastStrike strike={undefined} names={{}} unread="Reading the strikes …" />);
  expect(screen.getByRole("status").textContent).toBe("Reading the strikes …");
  shown.again(<LastStrike strike={undefined} names={{}} unread={null} />);
  expect(screen.getByRole("status").textContent).toContain("No strike yet.");
  shown.again(<Plan stations={[["pitch", "pitch"]]} counts={null} current="pitch" onChoose={vi.fn()} />);
  expect(screen.getByRole("heading").textContent).toBe("To be hit");
  expect(screen.getByRole("button").textContent).toBe("pitch 5");
});

it("a strike in words names what matters first and leaves out what is not known", () => {
  expect(headline(strike({ entry_mm: 12 }), SI)).toBe("12\u00a0mm ahead");
  expect(headline(strike({ carry_m: 31.26 }), SI)).toBe("31.3\u00a0m");
  expect(told(strike({ mark_back_mm: 9, divot: "deep", note: "wet" }), SI)).toBe(
    "sole marked 9\u00a0mm back, divot deep, wet",
  );
  expect(told(strike(), SI)).toBe("typed");
  const yards = { distance: "yd", speed: "mph" } as const;
  expect(told(strike({ carry_m: 91.44, club_speed_mps: 20 }), yards)).toBe("44.7\u00a0mph, carry 100.0\u00a0yd");
});

describe("a strike by hand", () => {
  it("takes commas, refuses what no strike has, and waits for the next", () => {
    const onTake = vi.fn();
    show(<StrikeForm of="pitch" onTake={onTake} />);
    const entry = screen.getByLabelText("Entry, mm") as HTMLInputElement;
    const lean = screen.getByLabelText("Shaft lean, °");
    fireEvent.change(lean, { target: { value: "90" } });
    expect(screen.getByRole("alert").textContent).toBe("−25 to 35°");
    fireEvent.submit(screen.getByRole("form"));
    expect(onTake).not.toHaveBeenCalled();
    fireEvent.change(lean, { target: { value: "9,5" } });
    fireEvent.change(entry, { target: { value: "-60" } });
    fireEvent.submit(screen.getByRole("form"));
    expect(onTake).toHaveBeenCalledWith({ entry_mm: -60, lean_deg: 9.5 });
    expect(entry.value).toBe("");
    expect(document.activeElement).toBe(entry);
  });
});

it("what the eye adds goes to the last strike, the note once it is finished", () => {
  const tell = vi.fn();
  const queue = { tell } as unknown as StrikeQueue;
  show(<About strike={strike({ id: "s" })} soleWidth={20} hand="right" queue={queue} />);
  fireEvent.click(screen.getByLabelText("deep"));
  expect(tell).toHaveBeenLastCalledWith("s", { divot: "deep" });
  const note = screen.getByLabelText("Note on the last strike");
  fireEvent.change(note, { target: { value: "wet face" } });
  expect(tell).toHaveBeenCalledTimes(1);
  fireEvent.blur(note);
  expect(tell).toHaveBeenLastCalledWith("s", { note: "wet face" }, "");
});

it("another fitter's note does not take the place of the one being written, nor that one of theirs", () => {
  const tell = vi.fn();
  const queue = { tell } as unknown as StrikeQueue;
  const about = (note: string) => (
    <About strike={strike({ id: "s", note })} soleWidth={20} hand="right" queue={queue} />
  );
  const shown = showAlone(about("low"));
  const field = () => screen.getByLabelText("Note on the last strike") as HTMLInputElement;
  fireEvent.change(field(), { target: { value: "low, wet" } });
  shown.again(about("gusty"));
  expect(field().value).toBe("low, wet");
  fireEvent.blur(field());
  expect(tell.mock.calls).toEqual([["s", { note: "low, wet" }, "low"]]);
  expect(field().value).toBe("gusty");
});

it("a note being written is kept when the next strike comes, and one that says nothing new is not told again", () => {
  const tell = vi.fn();
  const queue = { tell } as unknown as StrikeQueue;
  const about = (id: string, note = "") => (
    <About key={id} strike={strike({ id, note })} soleWidth={20} hand="right" queue={queue} />
  );
  const shown = showAlone(about("s"));
  fireEvent.change(screen.getByLabelText("Note on the last strike"), { target: { value: "wet" } });
  shown.again(about("next", "firm"));
  expect(tell.mock.calls).toEqual([["s", { note: "wet" }, ""]]);
  shown.unmount();
  expect(tell).toHaveBeenCalledTimes(1);
});

it("a strike whose note is being written is held while others are hit, and let go once it is left or told of", () => {
  const onHold = vi.fn();
  const queue = { tell: vi.fn() } as unknown as StrikeQueue;
  const about = (earlier: boolean) => (
    <About strike={strike({ id: "s" })} earlier={earlier} onHold={onHold} soleWidth={20} hand="right" queue={queue} />
  );
  const shown = showAlone(about(false));
  const note = screen.getByLabelText("Note on the last strike");
  note.focus();
  expect(onHold).toHaveBeenLastCalledWith(true);
  fireEvent.change(note, { target: { value: "much" } });
  fireEvent.keyDown(note, { key: "Enter" });
  expect(onHold).toHaveBeenCalledTimes(1);
  shown.again(about(true));
  expect(document.activeElement).toBe(screen.getByLabelText("Note on an earlier strike"));
  expect(screen.getByRole("status").textContent).toContain("Another was hit since");
  fireEvent.click(screen.getByLabelText("deep"));
  expect(onHold).toHaveBeenLastCalledWith(false);
  onHold.mockClear();
  fireEvent.blur(note, { relatedTarget: screen.getByLabelText("deep") });
  expect(onHold).not.toHaveBeenCalled();
  fireEvent.blur(note, { relatedTarget: null });
  expect(onHold).toHaveBeenLastCalledWith(false);
});

it("while it asks why, figures are reasons and nothing else", () => {
  const onReason = vi.fn();
  const onCancel = vi.fn();
  const elsewhere = vi.fn();
  window.addEventListener("keydown", elsewhere);
  show(<AskReason figure="57.1 m" onReason={onReason} onCancel={onCancel} />);
  expect(screen.getByRole("alert").textContent).toContain("Why does the strike of 57.1 m not count?");
  fireEvent.keyDown(window, { key: "2" });
  expect(onReason).toHaveBeenCalledWith("heavy");
  expect(elsewhere).not.toHaveBeenCalled();
  fireEvent.keyDown(window, { key: "Escape" });
  expect(onCancel).toHaveBeenCalled();
  fireEvent.keyDown(window, { key: "9" });
  expect(elsewhere).toHaveBeenCalledTimes(1);
  window.removeEventListener("keydown", elsewhere);
});
