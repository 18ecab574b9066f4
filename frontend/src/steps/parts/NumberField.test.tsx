import { MantineProvider } from "@mantine/core";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { FittingProvider, type ShownFitting } from "../../app/context";
import { NumberField } from "./NumberField";

function show(value: number | null, faults: ShownFitting["faults"] = [], optional = false) {
  const onChange = vi.fn();
  const store = { faults } as unknown as ShownFitting;
  render(
    <MantineProvider>
      <FittingProvider value={store}>
        <NumberField label="Lean" unit="°" path="player.lean" value={value} onChange={onChange} optional={optional} />
      </FittingProvider>
    </MantineProvider>,
  );
  return { field: screen.getByLabelText("Lean") as HTMLInputElement, onChange };
}

describe("NumberField", () => {
  it("sends numbers, with a comma or a point, and keeps the text as typed", () => {
    const { field, onChange } = show(5);
    fireEvent.change(field, { target: { value: "6,50" } });
    expect(onChange).toHaveBeenLastCalledWith(6.5);
    expect(field.value).toBe("6,50");
  });

  it("says so when it is no number, and sends nothing", () => {
    const { field, onChange } = show(5);
    fireEvent.change(field, { target: { value: "six" } });
    expect(onChange).not.toHaveBeenCalled();
    expect(screen.getByText("must be a number")).toBeTruthy();
    expect(field.value).toBe("six");
    fireEvent.keyDown(field, { key: "Escape" });
    expect(field.value).toBe("5");
  });

  it("an empty field is unknown where that is allowed", () => {
    const { field, onChange } = show(5, [], true);
    fireEvent.change(field, { target: { value: "" } });
    expect(onChange).toHaveBeenLastCalledWith(null);
  });

  it("shows the server's fault at its own field only", () => {
    show(90, [{ field: "player.lean", message: "must be between −8 and 16°", value: "90" }]);
    expect(screen.getByText("must be between −8 and 16°")).toBeTruthy();
    cleanup();
    show(90, [{ field: "player.attack", message: "must be lower", value: "90" }]);
    expect(screen.queryByText("must be lower")).toBeNull();
  });
});
