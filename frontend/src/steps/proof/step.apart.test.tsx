import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { server, show } from "../../testing/show";
import ProofStep from "./ProofStep";

vi.mock("./PlanForm", () => ({ PlanForm: () => <p>a plan</p> }));
vi.mock("../../strikes/queue", () => ({ useQueue: () => ({ ahead: [] }) }));
const step = (answers: Record<string, unknown>) => {
  server(answers);
  show(<ProofStep />, { server: { id: "f", recommendation: {} } });
};

it("none is planned before it is known whether one is running", async () => {
  step({ "GET proofs": { proofs: [] } });
  expect(screen.getByRole("status").textContent).toBe("Reading the proofs …");
  expect(screen.queryByText("a plan")).toBeNull();
  await screen.findByText("a plan");
  expect(screen.queryByText("Reading the proofs …")).toBeNull();
});

it("proofs that cannot be read are said, and no plan stands beside that", async () => {
  step({});
  expect((await screen.findByRole("alert")).textContent).toContain("could not do that now");
  expect(screen.queryByText("a plan")).toBeNull();
});
