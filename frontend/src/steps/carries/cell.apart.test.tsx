import { fireEvent, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Carries } from "../../api/client";
import { forgetRemembered, RememberedUnder, rememberedOf } from "../../app/useRemembered";
import { inFitting, showAlone } from "../../testing/show";
import { Measure } from "./Measure";

vi.mock("./PasteBox", () => ({ PasteBox: () => null }));
vi.mock("./OwnSwings", () => ({ OwnSwings: () => null }));
vi.mock("./PlayerNumbers", () => ({ PlayerNumbers: () => null }));
vi.mock("./CellPanel", () => ({ CellPanel: ({ cell }: { cell: { code: string } }) => <p>ball of {cell.code}</p> }));
vi.mock("../../strikes/queue", () => ({ useQueue: () => ({ ahead: [], waiting: [] }) }));
afterEach(() => forgetRemembered("fitter"));

const ROWS = [{ code: "own:0", name: "gap", loft_deg: 50 }, { code: "own:1", name: "sand", loft_deg: 56 }]; // biome-ignore format: one line
const SWINGS = ["full", "900"].map((key) => ({ key, name: key, speed_share: 1 }));
const carries = (club: string, swing: string) =>
  ({
    rows: ROWS, swings: SWINGS, strikes: [], outliers: [], next: [{ club, swing, words: "" }],
    cells: ROWS.flatMap(({ code, loft_deg }) =>
      SWINGS.map(({ key }) => ({
        club: code, loft_deg, swing: key, code: `${code} ${key}`, carry_m: 80, low_m: 70, high_m: 90, count: 0, aside: 0, source: "",
      })),
    ),
  }) as unknown as Carries; // biome-ignore format: one line a few things
const page = (club: string, swing: string) =>
  inFitting(
    <RememberedUnder value={rememberedOf("fitter", "f")}>
      <Measure carries={carries(club, swing)} />
    </RememberedUnder>,
  );

it("it begins where to measure next, and only the fitter moves it from there, also over another step", () => {
  const first = showAlone(page("own:1", "900"));
  expect(screen.getByText("ball of own:1 900")).toBeTruthy();
  first.again(page("own:0", "full"));
  expect(screen.getByText("ball of own:1 900")).toBeTruthy();
  first.unmount();
  const second = showAlone(page("own:0", "full"));
  expect(screen.getByText("ball of own:0 full")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: /^sand, full/ }));
  second.unmount();
  showAlone(page("own:0", "900"));
  expect(screen.getByText("ball of own:1 full")).toBeTruthy();
});
