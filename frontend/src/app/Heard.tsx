import { VisuallyHidden } from "@mantine/core";
import { useRef } from "react";
import type { Recommendation } from "../api/client";
import { trimmed } from "../units/units";

/** The set in words for who hears the page: said anew when the whole rack's answer is another set. */
export function Heard({ result, toCome = false }: { result: Recommendation | null; toCome?: boolean }) {
  const said = useRef("");
  if (!result && !toCome) said.current = "No set can be proposed yet.";
  else if (result?.whole_rack) {
    const clubs = result.clubs.map((club) => `${club.name} at ${trimmed(club.loft_deg)}°`);
    said.current = `The set: ${clubs.length ? clubs.join(", ") : "today’s bag"}`;
  }
  return <VisuallyHidden role="status">{said.current}</VisuallyHidden>;
}
