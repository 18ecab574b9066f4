import type { KeptLine } from "../../api/client";
import { showMoment } from "../../units/days";

/** A kept proposal by its name and time. */
export const nameOf = (line: Pick<KeptLine, "label" | "created_at">) => {
  const time = showMoment(line.created_at);
  return line.label ? `${line.label}, ${time}` : time;
};
