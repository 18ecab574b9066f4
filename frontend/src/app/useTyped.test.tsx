import { cleanup, fireEvent, screen } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { BentBefore, Reading, SwingWeight } from "../steps/build/fields";
import { ReadingsField } from "../steps/ground/ReadingsField";
import { NumberField } from "../steps/parts/NumberField";
import { PlainNumber } from "../steps/parts/PlainNumber";
import { show } from "../testing/show";
import { forgetRemembered, RememberedUnder, rememberedOf } from "./useRemembered";

const onChange = vi.fn();
beforeEach(() => {
  onChange.mockClear();
  forgetRemembered("f");
});

/** The field as it is shown anew, with what stands in it. */
function opened(part: React.ReactNode, label: string) {
  cleanup();
  show(<RememberedUnder value={rememberedOf("f", "page")}>{part}</RememberedUnder>);
  return screen.getByLabelText(label) as HTMLInputElement;
}
const type = (field: HTMLElement, value: string) => fireEvent.change(field, { target: { value } });

const lean = (value: number) => <NumberField label="Lean" unit="°" path="lean" value={value} onChange={onChange} />;
const heel = (value: number) => (
  <PlainNumber saved label="Heel" unit="mm" low={0} high={4} value={value} onChange={onChange} />
);
const loft = (value: number | null) => (
  <Reading label="Loft" unit="°" value={value} bound={{ low: 40, high: 70 }} onChange={onChange} />
);
const weight = (value: string | null) => (
  <SwingWeight label="Weight" empty="not read" value={value} onChange={onChange} />
);
const hammer = (values: number[]) => (
  <ReadingsField label="Hammer" path="hammer" values={values} says="" places={1} onChange={onChange} />
);

it.each([
  ["a figure", lean(5), lean(6), "Lean", "six", "6"],
  ["a figure with a range", heel(1), heel(2), "Heel", "9", "2"],
  ["a reading", loft(56), loft(57), "Loft", "560", "57"],
  ["a swing weight", weight("D4"), weight("D5"), "Weight", "D", "D5"],
  ["readings", hammer([80]), hammer([81]), "Hammer", "80 8o", "81"],
])(
  "%s that is wrong is there again, and gives way to what stands there since",
  (_, now, since, label, text, stands) => {
    const field = opened(now, label);
    type(field, text);
    fireEvent.blur(field);
    const again = opened(now, label);
    expect([again.value, again.getAttribute("aria-invalid")]).toEqual([text, "true"]);
    expect(opened(since, label).value).toBe(stands);
    expect(onChange).not.toHaveBeenCalled();
  },
);

it("what was right and not left yet is taken when the field is shown again, and once", () => {
  type(opened(loft(56), "Loft"), "57,5");
  opened(loft(56), "Loft");
  expect(onChange.mock.calls).toEqual([[57.5]]);
  opened(loft(56), "Loft");
  type(opened(hammer([80]), "Hammer"), "80 82");
  opened(hammer([80]), "Hammer");
  type(opened(<BentBefore value={[]} onChange={onChange} />, "Bent before"), "1 -0.5");
  opened(<BentBefore value={[]} onChange={onChange} />, "Bent before");
  expect(onChange.mock.calls).toEqual([[57.5], [[80, 82]], [[1, -0.5]]]);
});

it("what is put back or mended is not there again", () => {
  const field = opened(lean(5), "Lean");
  type(field, "six");
  fireEvent.keyDown(field, { key: "Escape" });
  expect(opened(lean(5), "Lean").value).toBe("5");
  const range = opened(heel(1), "Heel");
  type(range, "9");
  type(range, "3");
  expect(opened(heel(1), "Heel").value).toBe("1");
});
