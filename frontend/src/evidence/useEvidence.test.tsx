import { act, screen } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { ComingProvider } from "../devices/live";
import { inFitting, showAlone } from "../testing/show";
import { useEvidence } from "./useEvidence";

function Draws() {
  return <p>{useEvidence().data?.draws ?? "none"}</p>;
}

const asked: Request[] = [];
let answer: () => Promise<Response>;
const DRAWN = () => new Response(JSON.stringify({ draws: 500 }), { headers: { "Content-Type": "application/json" } });
const ended = (request: Request) =>
  new Promise<Response>((_, fail) => request.signal.addEventListener("abort", () => fail(request.signal.reason)));
const at = (coming: boolean, revision = 1, saveState = "saved") => {
  const server = { id: "f", revision, strikes_key: "k", rack_key: "r", recommendation: { whole_rack: true } };
  return inFitting(
    <ComingProvider value={coming}>
      <Draws />
    </ComingProvider>,
    { server, saveState },
  );
};
const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

beforeEach(() => {
  vi.useFakeTimers();
  asked.length = 0;
  vi.stubGlobal("fetch", (request: Request) => {
    asked.push(request);
    return answer();
  });
});

it("the draws are given up as soon as another proposal is known to come, and asked for when none has come", async () => {
  answer = () => ended(asked.at(-1) as Request);
  const { again } = showAlone(at(false));
  await pass(2100);
  expect(asked.map((one) => one.signal.aborted)).toEqual([false]);
  again(at(true));
  await pass(5000);
  expect(asked.map((one) => one.signal.aborted)).toEqual([true]);
  answer = async () => DRAWN();
  again(at(false));
  await pass(2100);
  expect(asked).toHaveLength(2);
  expect(screen.getByText("500")).toBeTruthy();
});

it("a field that is to be mended does not keep the draws away, an edit on its way does", async () => {
  answer = async () => DRAWN();
  const { again } = showAlone(at(false, 1, "saving"));
  await pass(5000);
  expect(asked).toHaveLength(0);
  again(at(false, 1, "refused"));
  await pass(2100);
  expect(asked).toHaveLength(1);
});

it("while another proposal is on its way no draws are asked for, and those that are there stay", async () => {
  answer = async () => DRAWN();
  const { again } = showAlone(at(false));
  await pass(2100);
  again(at(true));
  again(at(true, 2));
  await pass(5000);
  expect(asked).toHaveLength(1);
  expect(screen.getByText("500")).toBeTruthy();
  again(at(false, 2));
  await pass(2100);
  expect(asked).toHaveLength(2);
});
