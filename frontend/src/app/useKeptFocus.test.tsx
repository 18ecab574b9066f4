import { act, render, screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { useKeptFocus } from "./useKeptFocus";

function List({ rows, busy = false }: { rows: string[]; busy?: boolean }) {
  useKeptFocus();
  return (
    <main>
      <ol aria-label="strikes">
        {rows.map((row) => (
          <li key={row}>
            {row} <button type="button">take out {row}</button>
          </li>
        ))}
      </ol>
      <button type="button" disabled={busy}>
        send
      </button>
    </main>
  );
}
const button = (name: string) => screen.getByRole("button", { name });
const focus = (name: string) => act(() => button(name).focus());
const has = (text: string) => waitFor(() => expect(document.activeElement?.textContent?.trim()).toBe(text));

it("the focus of a row that goes is on the next one, of the last on the one before, of the only one on what is around", async () => {
  const { rerender } = render(<List rows={["a", "b", "c"]} />);
  focus("take out b");
  rerender(<List rows={["a", "c"]} />);
  await has("c take out c");
  expect(document.activeElement?.getAttribute("tabindex")).toBe("-1");
  focus("take out c");
  expect(screen.getAllByRole("listitem")[1]?.hasAttribute("tabindex")).toBe(false);
  rerender(<List rows={["a"]} />);
  await has("a take out a");
  focus("take out a");
  rerender(<List rows={[]} />);
  await waitFor(() => expect(document.activeElement).toBe(screen.getByRole("list")));
});

it("what waits for an answer has the focus again after it", async () => {
  const { rerender } = render(<List rows={[]} />);
  focus("send");
  rerender(<List rows={[]} busy />);
  await Promise.resolve();
  // browsers take the focus from what cannot be pressed, and this one does not
  const active = vi.spyOn(document, "activeElement", "get").mockReturnValue(document.body);
  const again = vi.spyOn(button("send"), "focus");
  rerender(<List rows={["a"]} busy />);
  await Promise.resolve();
  expect(again).not.toHaveBeenCalled();
  rerender(<List rows={["a"]} />);
  await waitFor(() => expect(again).toHaveBeenCalledTimes(1));
  active.mockRestore();
});

it("what is left by hand is left, also when it goes away after", async () => {
  const { rerender } = render(<List rows={["a", "b"]} />);
  focus("take out a");
  act(() => button("take out a").blur());
  await Promise.resolve();
  rerender(<List rows={["b"]} />);
  await new Promise((done) => setTimeout(done, 20));
  expect(document.activeElement).toBe(document.body);
});
