import { fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { show } from "../testing/show";
import { Keys } from "./Keys";

it("a step key lets go of what has the focus, and that of the step on the screen goes to its heading", () => {
  show(
    <>
      <main id="work">
        <h1 tabIndex={-1}>Player</h1>
      </main>
      <button type="button">on the bench</button>
      <Keys current="player" />
    </>,
  );
  const button = screen.getByRole("button", { name: "on the bench" });
  const press = (key: string, code: string) => {
    button.focus();
    fireEvent.keyDown(button, { key, code });
    return document.activeElement;
  };
  expect(press("1", "Digit1")).toBe(screen.getByRole("heading", { name: "Player" }));
  expect(press("2", "Digit2")).toBe(document.body);
  expect(press("Enter", "Enter")).toBe(button);
});

it("the fitting is saved to a file from the commands, where the strip has no room for it", async () => {
  const saved: string[] = [];
  vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(function (this: HTMLAnchorElement) {
    saved.push(this.getAttribute("href") ?? "");
  });
  show(<Keys current="player" />);
  fireEvent.keyDown(document.body, { key: "/", code: "Slash" });
  fireEvent.click(await screen.findByText("Save to file"));
  expect(saved).toEqual(["/api/fittings/f/export"]);
});
