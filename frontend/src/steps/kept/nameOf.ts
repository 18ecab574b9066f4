import type { KeptLine } from "../../api/client";

const when = new Intl.DateTimeFormat("en-GB", { dateStyle: "medium", timeStyle: "short" });

/** A kept proposal by its name and time. */
export const nameOf = (line: Pick<KeptLine, "label" | "created_at">) => {
  const time = when.format(new Date(line.created_at));
  return line.label ? `${line.label}, ${time}` : time;
};
