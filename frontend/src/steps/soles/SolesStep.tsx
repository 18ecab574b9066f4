import { SegmentedControl } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import type { Club, Recommendation, Scenario } from "../../api/client";
import { useStore } from "../../app/context";
import { SetPlane } from "../../pictures/SetPlane/SetPlane";
import { trimmed } from "../../units/units";
import { Below } from "../parts/Below";
import { ByHand, notStanding } from "../parts/ByHand";
import { NoProposal } from "../parts/NoProposal";
import parts from "../parts/parts.module.css";
import { StepHead } from "../parts/StepHead";
import { CandidateTable } from "./CandidateTable";
import { PassView } from "./PassView";
import { SchoolsTable } from "./SchoolsTable";
import { SetsTable } from "./SetsTable";
import { SituationTable } from "./SituationTable";
import classes from "./Soles.module.css";

/** Bounce and sole for each loft: the pass through this player's ground, the windows, the ranking and the sums. */
export default function SolesStep() {
  const { server, draft } = useStore();
  const [slot, setSlot] = useState(0);
  const [shot, setShot] = useState<string | null>(null);
  const result = server.recommendation;
  const club = result?.clubs[Math.min(slot, result.clubs.length - 1)];
  if (!result || !club) return <NoProposal title="Soles" />;
  const scenario = result.scenarios.find((s) => s.key === shot) ?? leadingDuty(club, result);
  if (!scenario) return <NoProposal title="Soles" />;
  const lost = notStanding(server);
  return (
    <>
      <StepHead title="Soles" aside={<Link to="/desk">Shot desk</Link>}>
        <SegmentedControl
          aria-label="Club"
          value={String(club.slot)}
          data={result.clubs.map((c) => ({ value: String(c.slot), label: `${trimmed(c.loft_deg)}°` }))}
          onChange={(value) => {
            setSlot(Number(value));
            setShot(null);
          }}
        />
        <span className={parts.unit}>
          <strong className={classes.shotName}>{scenario.shot_name}</strong> on {scenario.ground}
        </span>
      </StepHead>
      {lost.length > 0 && (
        <section className={`${classes.verdict} ${parts.inLine}`}>
          Set by hand, not in this set:
          <ByHand heads={lost} />
        </section>
      )}
      <PassView key={`${club.slot}|${scenario.key}`} club={club} scenario={scenario} />
      <SituationTable club={club} result={result} chosen={scenario.key} onChoose={setShot} />
      <p className={classes.verdict}>
        <strong>{club.pinned ? `${club.name}, by hand.` : `Take ${club.name}.`}</strong> {club.reason}
      </p>
      <Below>
        <CandidateTable club={club} />
        <h2 className={classes.sectionTitle}>The set on one plane</h2>
        <SetPlane result={result} leanSpreadDeg={draft.player.delivery.lean_deg.spread} />
        <SetsTable result={result} />
        <SchoolsTable />
      </Below>
    </>
  );
}

/** The scenario that says most about a club: its largest duty, or else the largest short shot. */
function leadingDuty(club: Club, result: Recommendation): Scenario | undefined {
  const mine = result.scenarios.filter((s) => club.duties.includes(s.key));
  const pool = mine.length > 0 ? mine : result.scenarios.filter((s) => s.kind !== "full");
  return pool.reduce<Scenario | undefined>((a, b) => (a === undefined || b.share > a.share ? b : a), undefined);
}
