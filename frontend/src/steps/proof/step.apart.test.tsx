import { act, fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { server, show } from "../../testing/show";
import ProofStep from "./ProofStep";

vi.mock("./Running", () => ({
  Running: ({ proof, onGone }: { proof: { document: { id: string } }; onGone: () => void }) => (
    <button type="button" onClick={onGone}>{`proof ${proof.document.id}`}</button>
  ),
}));
vi.mock("./PlanForm", () => ({
  PlanForm: ({ onPlanned }: { onPlanned: (id: string) => void }) => (
    <button type="button" onClick={() => onPlanned("new")}>
      a plan
    </button>
  ),
}));
vi.mock("../../strikes/queue", () => ({ useQueue: () => ({ ahead: [] }) }));
const step = (answers: Record<string, unknown>) => {
  server(answers);
  return show(<ProofStep />, { server: { id: "f", recommendation: {} } });
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

const proofs = (...ids: string[]) => ({ proofs: ids.map((id) => ({ document: { id, made_on: "2026-05-01" } })) });

it("the proof in sight stays when another screen plans one, and gives way to the next once it is taken out", async () => {
  const answers: Record<string, unknown> = { "GET proofs": proofs("b", "a"), "GET out": { proofs: [] } };
  const { client } = step(answers);
  await screen.findByText("proof b");
  answers["GET proofs"] = proofs("c", "b", "a");
  await act(() => client.invalidateQueries({ queryKey: ["proofs", "f"] }));
  expect(screen.getByText("proof b")).toBeTruthy();
  answers["GET proofs"] = proofs("c", "a");
  await act(() => client.invalidateQueries({ queryKey: ["proofs", "f"] }));
  expect(await screen.findByText("proof c")).toBeTruthy();
  answers["GET proofs"] = proofs("d", "c", "a");
  await act(() => client.invalidateQueries({ queryKey: ["proofs", "f"] }));
  expect(screen.getByText("proof c")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Plan another" }));
  expect(screen.getByText("a plan")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Back to the proof" }));
  expect(screen.getByText("proof c")).toBeTruthy();
});

it("the one that was planned here comes in sight, also where the list with it comes late", async () => {
  const answers: Record<string, unknown> = { "GET proofs": proofs("a"), "GET out": { proofs: [] } };
  const { client } = step(answers);
  await screen.findByText("proof a");
  fireEvent.click(screen.getByRole("button", { name: "Plan another" }));
  fireEvent.click(screen.getByText("a plan"));
  expect(screen.getByText("proof a")).toBeTruthy();
  answers["GET proofs"] = proofs("new", "a");
  await act(() => client.invalidateQueries({ queryKey: ["proofs", "f"] }));
  expect(await screen.findByText("proof new")).toBeTruthy();
});
