import { SegmentedControl } from "@mantine/core";
import { useState } from "react";
import { useStore } from "../../app/context";
import { NoProposal } from "../parts/NoProposal";
import parts from "../parts/parts.module.css";
import { StepHead } from "../parts/StepHead";
import { LadderView } from "./LadderView";
import { VerdictView } from "./VerdictView";

/** What a change wins and where the strokes go; the ladder of lofts as the second view. */
export default function LoftsStep() {
  const { server } = useStore();
  const [view, setView] = useState("verdict");
  const result = server.recommendation;
  if (!result) return <NoProposal title="Lofts" />;
  const { economy } = result;
  return (
    <>
      <StepHead title="Lofts">
        <SegmentedControl
          aria-label="View"
          value={view}
          data={[
            { value: "verdict", label: "What a change wins" },
            { value: "ladder", label: "Ladder" },
          ]}
          onChange={setView}
        />
        <span className={parts.unit}>
          {economy.shots_a_round.toFixed(0)} wedge shots a round; a head must win {economy.worth_changing.toFixed(2)}
        </span>
      </StepHead>
      {view === "verdict" ? <VerdictView result={result} /> : <LadderView result={result} />}
    </>
  );
}
