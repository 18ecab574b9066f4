import { MantineProvider } from "@mantine/core";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Ground, Recommendation } from "../api/client";
import { USUAL_SAND, USUAL_TURF } from "../desk/setup";
import type { DeskHead } from "../desk/useDesk";
import { CoreSample } from "./CoreSample/CoreSample";
import { FlightRuler } from "./FlightRuler/FlightRuler";
import { entryScale, entryTicks } from "./ruler";
import { SolePass } from "./SolePass/SolePass";
import { StrikeWindows } from "./StrikeWindows/StrikeWindows";

afterEach(cleanup);

const head = (change: object = {}, window: object = {}) =>
  ({
    outline_mm: [
      [0, 0],
      [-20, -3],
      [-10, 30],
    ],
    path_mm: [
      [-60, 8, 5],
      [-40, 3, 4],
      [-12, 1, 3],
    ],
    contact_mm: [-12, 1],
    strike: {
      contact: "face",
      outcome: "clean",
      carry_m: 21.6,
      intended_carry_m: 24,
      leading_edge_mm: 1,
      impact_height_mm: 11,
      speed_ratio: 0.99,
      delivered_loft_deg: 51,
      delivered_bounce_deg: 5,
      extrapolated: [],
      ...change,
    },
    window: { low_mm: -48, high_mm: 20, open_ahead: false, width_mm: 68, ...window },
    inside_share: 0.8,
    expected_quality: 0.66,
  }) as unknown as DeskHead;

describe("SolePass", () => {
  const show = (it: DeskHead, setup = USUAL_TURF) => {
    const onEntry = vi.fn();
    render(<SolePass head={it} setup={setup} unit="m" onEntry={onEntry} />);
    return { slider: screen.getByRole("slider"), onEntry };
  };

  it("says the outcome in words and moves by the arrows, within the ruler", () => {
    const { slider, onEntry } = show(head());
    expect(slider.getAttribute("aria-valuetext")).toContain("Clean. Carries 21.6 m");
    fireEvent.keyDown(slider, { key: "ArrowLeft" });
    expect(onEntry).toHaveBeenLastCalledWith(-36);
    fireEvent.keyDown(slider, { key: "ArrowRight" });
    expect(onEntry).toHaveBeenLastCalledWith(-32);
  });

  it("stops at the end of the ruler", () => {
    const { slider, onEntry } = show(head(), { ...USUAL_SAND, entry_mm: -145 });
    fireEvent.keyDown(slider, { key: "ArrowLeft" });
    expect(onEntry).toHaveBeenLastCalledWith(-145);
  });

  it("names what is extrapolated and draws a strike that never meets the ball", () => {
    show(head({ extrapolated: ["speed"], outcome: "dug", contact: "none" }));
    expect(screen.getByText("extrapolated: speed")).toBeTruthy();
    expect(screen.getByText("Dug in")).toBeTruthy();
  });
});

describe("StrikeWindows", () => {
  it("reads out every band, open ones and none at all", () => {
    const rows = [
      { name: "one", note: "", head: head() },
      { name: "two", note: "", head: head({}, { open_ahead: true }) },
      { name: "three", note: "", head: head({}, { low_mm: null, high_mm: null }) },
    ];
    render(
      <StrikeWindows
        rows={rows}
        sand={false}
        entryMm={-34}
        spreadMm={15}
        whose="entries"
        focus={0}
        onFocus={() => {}}
      />,
    );
    const words = screen.getAllByRole("img").map((band) => band.getAttribute("aria-label"));
    expect(words[0]).toBe("one: window from −48 to 20 millimetres, 80 % of entries inside, quality 66");
    expect(words[1]).toContain("open ahead");
    expect(words[2]).toBe("three: no entry plays");
  });
});

describe("one ruler", () => {
  it("puts every tick inside and the ball at zero", () => {
    for (const sand of [false, true]) {
      const x = entryScale(sand);
      expect(entryTicks(sand)).toContain(0);
      for (const tick of entryTicks(sand)) expect(x(tick) > 12 && x(tick) < 894).toBe(true);
    }
  });
});

describe("FlightRuler", () => {
  it("has a rung a club and swing, in the fitter's units, and marks holes", () => {
    const rung = (club: string, swing: string, carry: number) => ({
      club,
      swing,
      carry_m: carry,
      apex_m: 20,
      landing_deg: 45,
      path_m: [
        [0, 0],
        [carry / 2, 20],
        [carry, 0],
      ],
    });
    const lofts = {
      rungs: [rung("pitching wedge", "full", 100), rung("52°", "full", 73.152)],
      gaps: [{ from_club: "pitching wedge", to_club: "52°", gap_m: 26.848, kind: "hole" }],
    } as unknown as Recommendation["lofts"];
    render(
      <MantineProvider>
        <FlightRuler lofts={lofts} unit="yd" focus={null} onFocus={() => {}} />
      </MantineProvider>,
    );
    expect(screen.getByLabelText(/^52°, full: carries 80 yd/)).toBeTruthy();
    expect(screen.getByText("hole 29 yd")).toBeTruthy();
  });
});

describe("CoreSample", () => {
  it("says its readings", () => {
    const ground = {
      name: "home",
      turf: { firmness_g: 118, lie: "sitting_up", moisture: 0.3, root_density: 1 },
      sand: { penetrometer_kg_cm2: 2.1, loose_depth_mm: 70, moisture: 0.2 },
    } as unknown as Ground;
    render(<CoreSample ground={ground} />);
    expect(screen.getByRole("img").getAttribute("aria-label")).toBe(
      "Turf 118 g, sitting up lie; sand 2.1 kg/cm2, 70 mm loose.",
    );
  });
});
