import { fireEvent, render, screen, within } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import schema from "../../../openapi.json";
import type { Carries, Ground } from "../api/client";
import { LIES, type Setup } from "../desk/setup";
import type { DeskHead } from "../desk/useDesk";
import { CarryLadder } from "./CarryLadder/CarryLadder";
import { CoreSample } from "./CoreSample/CoreSample";
import { DrillDrawing } from "./DrillDrawing/DrillDrawing";
import { Picture } from "./Picture";
import { SolePass } from "./SolePass/SolePass";
import { StrikeWindows } from "./StrikeWindows/StrikeWindows";
import { entryScale, markTicks, passScale } from "./scales";

const USUAL_TURF = LIES.fairway as Setup;
const USUAL_SAND = LIES.sand as Setup;

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

it("a picture is laid out for its own width from the first, not for a usual one that is then shrunk", () => {
  const box = vi.spyOn(Element.prototype, "getBoundingClientRect").mockReturnValue({ width: 692.4 } as DOMRect);
  const widths: number[] = [];
  const draw = (width: number) => {
    widths.push(width);
    return null;
  };
  const { container } = render(<Picture height={100}>{draw}</Picture>);
  box.mockRestore();
  expect(widths).toEqual([692]);
  expect(container.querySelector("svg")?.getAttribute("viewBox")).toBe("0 0 692 100");
});

describe("SolePass", () => {
  const show = (it: DeskHead, setup = USUAL_TURF) => {
    const onEntry = vi.fn();
    render(<SolePass head={it} setup={setup} unit="m" thatchMm={2} onEntry={onEntry} />);
    return { slider: screen.getByRole("slider"), onEntry };
  };

  it("says the outcome in words and moves by the arrows, within the ruler", () => {
    const { slider, onEntry } = show(head());
    expect(slider.getAttribute("aria-valuetext")).toContain("Clean. Carries 21.6\u00a0m");
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
    expect(screen.getByText("not tested: speed")).toBeTruthy();
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
    expect(words[0]).toBe("one: window from −48 to 20 millimetres, 80\u00a0% of entries inside, quality 66");
    expect(words[1]).toContain("open ahead");
    expect(words[2]).toBe("three: no entry plays");
  });

  it("begins no band under a name: one that reaches farther back says where it ends", () => {
    const rows = [
      { name: "a head of a long name", note: "12° · 24 mm", head: head({}, { low_mm: -110 }) },
      { name: "short", note: "", head: head({}, { low_mm: -100 }) },
      { name: "near", note: "", head: head({}, { low_mm: -5 }) },
    ];
    render(
      <StrikeWindows rows={rows} sand={false} entryMm={-34} spreadMm={15} whose="x" focus={0} onFocus={() => {}} />,
    );
    const bands = screen.getAllByRole("img");
    const starts = bands.map((band) => Number(band.querySelectorAll("rect")[1]?.getAttribute("x")));
    expect(starts[1]).toBe(starts[0]);
    expect(starts[2]).toBeGreaterThan(starts[0] ?? Number.POSITIVE_INFINITY);
    expect(bands.map((band) => within(band).queryByText(/‹/)?.textContent)).toEqual(["‹ 110", "‹ 100", undefined]);
  });

  it("says where a band ends that reaches farther ahead than the picture", () => {
    const rows = [
      { name: "near", note: "", head: head() },
      { name: "far", note: "", head: head({}, { high_mm: 66 }) },
      { name: "open", note: "", head: head({}, { open_ahead: true, high_mm: 70 }) },
    ];
    render(
      <StrikeWindows rows={rows} sand={false} entryMm={-34} spreadMm={15} whose="x" focus={0} onFocus={() => {}} />,
    );
    const ends = screen.getAllByRole("img").map((band) => within(band).queryByText(/›/)?.textContent);
    expect(ends).toEqual([undefined, "66 ›", "open ›"]);
  });

  it("cuts a name that leaves no room for the bands, and reads it out whole", () => {
    const long = "a name that somebody wrote to the very end of the field, and then some more of it, to be sure";
    const rows = [{ name: long, note: "", head: head({}, { low_mm: -48 }) }];
    render(
      <StrikeWindows rows={rows} sand={false} entryMm={-34} spreadMm={15} whose="x" focus={0} onFocus={() => {}} />,
    );
    const band = screen.getByRole("img");
    expect(band.getAttribute("aria-label")).toContain(long);
    expect(within(band).getByText(/^a name that.*…/)).toBeTruthy();
    expect(Number(band.querySelectorAll("rect")[1]?.getAttribute("width"))).toBeGreaterThan(50);
  });
});

describe("one ruler", () => {
  it("puts every tick inside, the ball at zero, and none under the words, whatever the width", () => {
    for (const width of [906, 700, 340]) {
      const ticks = markTicks(false, width);
      const x = entryScale(false, width);
      expect(ticks).toContain(0);
      for (const tick of ticks) expect(x(tick) > 80 && x(tick) < width - 12).toBe(true);
      for (const [i, tick] of ticks.slice(1).entries()) expect(x(tick) - x(ticks[i] ?? 0)).toBeGreaterThan(28);
    }
  });

  it("looks at the ball and the sole on a narrow screen, wherever the sole lands", () => {
    for (const entry of [-100, -40, 10, 40]) {
      const x = passScale(false, entry, 340, true);
      expect(x(entry) > 0 && x(entry) < 340 && x(21) < 340).toBe(true);
    }
    expect(passScale(false, -40, 340, true)(1) - passScale(false, -40, 340, true)(0)).toBeGreaterThan(2.8);
  });
});

describe("CarryLadder", () => {
  const cell = (club: string, swing: string, carry: number, source = "measured") => ({
    club,
    name: club,
    loft_deg: 50,
    swing,
    swing_name: swing,
    source,
    carry_m: carry,
    spread_m: 4,
    apex_m: 20,
    landing_deg: 45,
    path_m: [
      [0, 0],
      [carry / 2, 20],
      [carry, 0],
    ],
  });
  const carries = {
    rows: [
      { code: "pw", name: "pw", loft_deg: 50 },
      { code: "gap", name: "gap", loft_deg: 50 },
    ],
    cells: [cell("pw", "full", 100), cell("gap", "full", 73.152, "modelled")],
    faced: [
      [30, 1],
      [100, 2],
    ],
    holes: [{ low_m: 75, high_m: 93.288 }],
  } as unknown as Carries;

  it("has a rung a club and swing, in the fitter's units, and marks holes", () => {
    render(<CarryLadder carries={carries} unit="yd" focus={null} pinned={null} onFocus={() => {}} />);
    expect(screen.getByText(/^gap, full: carries 80 yd, modelled/)).toBeTruthy();
    expect(screen.getAllByText("hole 20").length).toBeGreaterThan(0);
  });

  it("pins a rung from the keyboard and tells the one in focus", () => {
    const onPin = vi.fn();
    const onFocus = vi.fn();
    render(
      <CarryLadder carries={carries} unit="m" focus="gap|50|full" pinned={null} onFocus={onFocus} onPin={onPin} />,
    );
    expect(screen.getAllByText(/gap full, 20 m high, 45°/).length).toBeGreaterThan(0);
    const rung = screen.getByText(/^pw, full/).parentElement as Element;
    fireEvent.focus(rung);
    fireEvent.keyDown(rung, { key: "Enter" });
    expect(onFocus).toHaveBeenCalledWith("pw|50|full");
    expect(onPin).toHaveBeenCalledWith("pw|50|full");
  });
});

describe("CoreSample", () => {
  it("says its readings", () => {
    const ground = {
      name: "home",
      turf: { firmness_g: 118, lie: "sitting_up", moisture: 0.3, root_density: 1 },
      sand: { penetrometer_kg_cm2: 2.1, loose_depth_mm: 70, moisture: 0.2 },
    } as unknown as Ground;
    render(<CoreSample ground={ground} thatchMm={2} />);
    expect(screen.getByRole("img").getAttribute("aria-label")).toBe(
      "Turf 118\u00a0g, sitting up lie; sand 2.1\u00a0kg/cm², 70\u00a0mm loose.",
    );
  });

  it.each([-4, 9999])("draws what is typed, %s too, within its core", (typed) => {
    const surface = { moisture: typed, loose_depth_mm: typed, penetrometer_kg_cm2: 2, firmness_g: typed, lie: "tight" };
    const odd = { name: "Überall", turf: surface, sand: surface } as unknown as Parameters<
      typeof CoreSample
    >[0]["ground"];
    const { container } = render(<CoreSample ground={odd} thatchMm={typed} />);
    const edges = [...container.querySelectorAll("rect")].flatMap((rect) => {
      const y = Number(rect.getAttribute("y"));
      return [y, y + Number(rect.getAttribute("height"))];
    });
    expect(Math.min(...edges)).toBeGreaterThanOrEqual(46);
    expect(Math.max(...edges)).toBeLessThanOrEqual(152);
  });

  it("two grounds whose names have no letter in common with these have patterns of their own", () => {
    const soft = { name: "юг", turf: { firmness_g: 60, lie: "tight", moisture: 0.5 }, sand: { loose_depth_mm: 30, penetrometer_kg_cm2: 2, moisture: 0 } }; // biome-ignore format: one line
    const grounds = [soft, { ...soft, name: "север" }] as unknown as Parameters<typeof CoreSample>[0]["ground"][];
    const { container } = render(
      grounds.map((ground) => <CoreSample key={ground.name} ground={ground} thatchMm={2} />),
    );
    const ids = [...container.querySelectorAll("pattern")].map((one) => one.id);
    expect(new Set(ids).size).toBe(6);
  });
});

it("every drill of the catalogue has a drawing of its own", () => {
  const { enum: known } = (schema.components.schemas.DrillOut as { properties: { drawing: { enum: string[] } } })
    .properties.drawing;
  const drawn = known.map((drawing) => {
    const { container } = render(<DrillDrawing drawing={drawing} name="a drill" hand="right" />);
    return container.querySelector("svg")?.getAttribute("aria-label");
  });
  expect(known.length).toBeGreaterThan(13);
  expect(new Set(drawn).size).toBe(known.length);
});
