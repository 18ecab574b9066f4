import type { Fate } from "./usePage";

/** What the studio does not have yet, and why. */
export function Waiting({ what, many, fate }: { what: string; many: boolean; fate: Fate }) {
  return (
    <p role="status" className="told">
      {what} {fate === "sending" ? ON_ITS_WAY[many ? 1 : 0] : `${many ? "wait" : "waits"} in this phone`}
      {fate === "waits" && " for a connection."}
      {typeof fate === "object" && `: ${fate.refused}`}
    </p>
  );
}

const ON_ITS_WAY = ["is on its way to the studio.", "are on their way to the studio."];
