import type { OwnedWedge } from "../../api/client";

/** What the wedges of a bag are known by, beside their places. */
export const entriesOf = (wedges: readonly OwnedWedge[]) =>
  wedges.map(({ name, loft_deg }) => ({ name, loft: loft_deg }));
