import type { Schemas } from "../../api/client";
import { FirstRows } from "../parts/FirstRows";
import { type Layout, LayoutBar } from "../parts/LayoutBar";

interface Props {
  read: Schemas["TableOut"];
  layout: Layout;
  /** Whether no rack came of it. */
  wrong: boolean;
  onLayout: (layout: Layout) => void;
}

/** How a rack's file was read, to be read otherwise: where no rack came of it, or a workbook has other sheets. */
export function RackReading({ read, layout, wrong, onLayout }: Props) {
  if (!wrong && read.layout.sheets.length < 2) return null;
  return (
    <section aria-label="How the file was read">
      <LayoutBar read={read.layout} layout={layout} onLayout={onLayout} />
      {wrong && <FirstRows table={read} />}
    </section>
  );
}
