import { act, cleanup, render, screen } from "@testing-library/react";
import { Component, type ReactNode, useLayoutEffect } from "react";
import { expect, it, vi } from "vitest";
import { Later, Program } from "./later";

const Part = ({ name }: { name: string }) => <p>{name} is there</p>;
/** Another part that has fetched the program before effects run. */
function Early({ late }: { late: Program<{ name: string }> }) {
  useLayoutEffect(() => {
    late.found = Part;
  }, [late]);
  return null;
}
class Fence extends Component<{ children: ReactNode }> {
  state = { words: "" };
  static getDerivedStateFromError = (error: Error) => ({ words: error.message });
  render() {
    return this.state.words || this.props.children;
  }
}

it("shows that it waits, then the part with what it is given; its program is fetched once", async () => {
  const get = vi.fn(async () => ({ default: Part }));
  const late = new Program(get);
  render(<Later of={late} props={{ name: "Lofts" }} waiting={<i>waiting</i>} />);
  expect(screen.getByText("waiting")).toBeTruthy();
  expect(await screen.findByText("Lofts is there")).toBeTruthy();
  cleanup();
  render(<Later of={late} props={{ name: "Soles" }} />);
  expect(screen.getByText("Soles is there")).toBeTruthy();
  expect(get).toHaveBeenCalledOnce();
});

it("what was loaded before is there at once", async () => {
  const late = new Program(async () => ({ default: Part }));
  await late.load();
  render(<Later of={late} props={{ name: "Bag" }} />);
  expect(screen.getByText("Bag is there")).toBeTruthy();
});

it("a program that cannot be had is told to the boundary and asked for again", async () => {
  vi.spyOn(console, "error").mockImplementation(() => {});
  const get = vi.fn().mockRejectedValueOnce(new Error("no connection")).mockResolvedValue({ default: Part });
  const late = new Program<{ name: string }>(get);
  const shown = () =>
    render(
      <Fence>
        <Later of={late} props={{ name: "Card" }} />
      </Fence>,
    );
  shown();
  expect(await screen.findByText("no connection")).toBeTruthy();
  cleanup();
  shown();
  expect(await screen.findByText("Card is there")).toBeTruthy();
});

it("another part in the same place is fetched by itself, and a failure of the one before is not its own", async () => {
  vi.spyOn(console, "error").mockImplementation(() => {});
  const [first, second] = ["first", "second"].map(
    (words) => new Program(async () => ({ default: () => <p>{words}</p> })),
  );
  const { rerender } = render(<Later of={first as Program} props={{}} />);
  expect(await screen.findByText("first")).toBeTruthy();
  rerender(<Later of={second as Program} props={{}} waiting={<i>waiting</i>} />);
  expect(screen.getByText("waiting")).toBeTruthy();
  expect(await screen.findByText("second")).toBeTruthy();
});

it("a program that comes between the first rendering and what follows it is shown", async () => {
  const late = new Program(async () => ({ default: Part }));
  render(
    <>
      <Later of={late} props={{ name: "Log" }} waiting={<i>waiting</i>} />
      <Early late={late} />
    </>,
  );
  expect(await screen.findByText("Log is there")).toBeTruthy();
});

it("a part for which the page goes on is asked for until it is there, and no more once it is gone", async () => {
  vi.useFakeTimers();
  const get = vi.fn().mockRejectedValueOnce(new Error("no connection")).mockResolvedValue({ default: Part });
  const late = new Program<{ name: string }>(get);
  render(<Later of={late} props={{ name: "Sign in" }} again />);
  await vi.advanceTimersByTimeAsync(2900);
  expect(get).toHaveBeenCalledTimes(1);
  await act(() => vi.advanceTimersByTimeAsync(200));
  expect(screen.getByText("Sign in is there")).toBeTruthy();
  cleanup();
  const never = vi.fn().mockRejectedValue(new Error("no connection"));
  render(<Later of={new Program<{ name: string }>(never)} props={{ name: "Sign in" }} again />);
  await vi.advanceTimersByTimeAsync(3100);
  cleanup();
  await vi.advanceTimersByTimeAsync(10_000);
  expect(never).toHaveBeenCalledTimes(2);
  vi.useRealTimers();
});
