import type { Setup } from "../../desk/setup";
import { plain } from "../../units/units";
import { RULER_HEIGHT } from "../Ruler";

/** Of the whole picture, and of the ground under its top, in pixels. */
export const HEIGHT = 356;
export const GROUND = 262;

interface LayersProps {
  setup: Setup;
  thatch: number;
  mm: number;
  width: number;
  ground: number;
}

/** The ground under the sole: turf on its soil, or loose sand on its base. */
export function GroundLayers({ setup, thatch, mm, width, ground }: LayersProps) {
  const depth = HEIGHT - RULER_HEIGHT - GROUND;
  if (setup.ground.kind === "turf") {
    return (
      <>
        <rect y={ground} width={width} height={thatch} fill="var(--mat)" />
        <rect y={ground + thatch} width={width} height={depth} fill="var(--soil)" />
        <rect y={ground + thatch} width={width} height={depth} fill="url(#pass-soil)" />
        <text x={width - 12} y={ground + depth - 8} fontSize={12} textAnchor="end">
          turf {plain(setup.ground.firmness_g)}&nbsp;g
        </text>
      </>
    );
  }
  const loose = setup.ground.loose_depth_mm * mm;
  return (
    <>
      <rect y={ground} width={width} height={depth} fill="var(--base)" />
      <rect y={ground} width={width} height={depth} fill="url(#pass-base)" />
      <rect y={ground} width={width} height={Math.min(loose, depth)} fill="var(--sand)" />
      <rect y={ground} width={width} height={Math.min(loose, depth)} fill="url(#pass-sand)" />
      <text x={width - 12} y={ground + depth - 8} fontSize={12} textAnchor="end">
        sand {plain(setup.ground.penetrometer_kg_cm2, 1)}&nbsp;kg/cm², {plain(setup.ground.loose_depth_mm)}&nbsp;mm
        loose
      </text>
    </>
  );
}
