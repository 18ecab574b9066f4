import { fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { showAlone } from "../../testing/show";
import { NameField } from "./NameField";

it("keeps a blank between two words while the answer to the first one comes, and has none around what is kept", () => {
  const kept = vi.fn();
  const shown = (value: string) => <NameField label="Name" value={value} onChange={kept} />;
  const { again } = showAlone(shown("old"));
  const field = screen.getByLabelText<HTMLInputElement>("Name");
  fireEvent.change(field, { target: { value: "old " } });
  expect(kept).toHaveBeenLastCalledWith("old");
  again(shown("old"));
  expect(field.value).toBe("old ");
  fireEvent.change(field, { target: { value: "old sand" } });
  again(shown("old sand"));
  expect(field.value).toBe("old sand");
  again(shown("gap"));
  expect(field.value).toBe("gap");
});
