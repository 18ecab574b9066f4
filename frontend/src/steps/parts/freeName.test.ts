import { expect, it } from "vitest";
import { freeName } from "./freeName";

it("a name stays as it is wanted, or has the first number that is free", () => {
  expect(freeName("Shingle Bay", ["home"])).toBe("Shingle Bay");
  expect(freeName("Shingle Bay", ["shingle bay"])).toBe("Shingle Bay 2");
  expect(freeName("Shingle Bay", ["Shingle Bay", "shingle bay 2", "Shingle Bay 3"])).toBe("Shingle Bay 4");
});
