import { SegmentedControl } from "@mantine/core";
import { useSearchParams } from "react-router";
import { StepHead } from "../parts/StepHead";
import { Rechecks } from "./Rechecks";
import { Seen } from "./Seen";
import { Timeline } from "./Timeline";
import { Trips } from "./Trips";

const VIEWS = [
  ["seen", "On the course"],
  ["rechecks", "Rechecks"],
  ["trips", "Trips and seasons"],
  ["years", "Over the years"],
] as const;
type View = (typeof VIEWS)[number][0];

/** After the fitting: what happened on the course, what is due, other ground, and the next fitting. */
export default function LogStep() {
  const [params, setParams] = useSearchParams();
  const view: View = VIEWS.find(([key]) => key === params.get("view"))?.[0] ?? "seen";
  return (
    <>
      <StepHead title="Log">
        <SegmentedControl
          aria-label="View"
          value={view}
          data={VIEWS.map(([value, label]) => ({ value, label }))}
          onChange={(next) => setParams(next === "seen" ? {} : { view: next }, { replace: true })}
        />
      </StepHead>
      {view === "seen" && <Seen />}
      {view === "rechecks" && <Rechecks />}
      {view === "trips" && <Trips />}
      {view === "years" && <Timeline />}
    </>
  );
}
