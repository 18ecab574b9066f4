import { fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { inFitting, show } from "../../testing/show";
import { ReadingsField } from "./ReadingsField";

const readings = (change: object = {}, faults: object[] = []) => {
  const onChange = vi.fn();
  show(
    <ReadingsField
      label="Hammer"
      path="grounds.0.turf.readings"
      values={[90, 95.5]}
      says="mean 93 g"
      places={1}
      onChange={onChange}
      {...change}
    />,
    { faults },
  );
  return { onChange, field: screen.getByLabelText("Hammer") as HTMLInputElement };
};

it("readings are taken together, on Enter or on leaving, with either decimal mark", () => {
  const { onChange, field } = readings();
  expect(field.value).toBe("90  95.5");
  fireEvent.change(field, { target: { value: "90 95,5; 101" } });
  expect(onChange).not.toHaveBeenCalled();
  fireEvent.keyDown(field, { key: "Enter" });
  expect(onChange).toHaveBeenLastCalledWith([90, 95.5, 101]);
  fireEvent.change(field, { target: { value: "" } });
  fireEvent.blur(field);
  expect(onChange).toHaveBeenLastCalledWith([]);
});

it("one that is no number is named, and holds the others", () => {
  const { onChange, field } = readings();
  fireEvent.change(field, { target: { value: "90 soft 88" } });
  expect(screen.getByText("soft is not a number")).toBeTruthy();
  fireEvent.blur(field);
  expect(onChange).not.toHaveBeenCalled();
});

it("readings that come to stand there meanwhile are told and take nothing away from what is being typed", () => {
  const onChange = vi.fn();
  const field = (values: number[]) => (
    <ReadingsField label="Hammer" path="x" values={values} says="" places={1} onChange={onChange} />
  );
  const { again } = show(field([90]));
  const input = screen.getByLabelText("Hammer") as HTMLInputElement;
  fireEvent.change(input, { target: { value: "90 95" } });
  again(inFitting(field([90, 101])));
  expect(input.value).toBe("90 95");
  expect(screen.getByText("stands there meanwhile: 90 101")).toBeTruthy();
  fireEvent.keyDown(input, { key: "Escape" });
  expect(input.value).toBe("90  101");
  fireEvent.change(input, { target: { value: "90 101 95" } });
  fireEvent.blur(input);
  expect(onChange.mock.calls).toEqual([[[90, 101, 95]]]);
});

it("leaving the field as it was asks for nothing; the server's word on one reading stands under all", () => {
  const { onChange, field } = readings({}, [{ field: "grounds.0.turf.readings.1", message: "must be at most 250" }]);
  fireEvent.blur(field);
  expect(onChange).not.toHaveBeenCalled();
  expect(screen.getByText("must be at most 250")).toBeTruthy();
  expect(screen.getByText("mean 93 g")).toBeTruthy();
});
