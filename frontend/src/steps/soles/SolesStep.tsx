import { SegmentedControl } from "@mantine/core";
import { useState } from "react";
import type { Club, Recommendation } from "../../api/client";
import { useStore } from "../../app/context";
import { SoleRest } from "../../pictures/SoleRest/SoleRest";
import { trimmed } from "../../units/units";
import { NoProposal } from "../parts/NoProposal";
import parts from "../parts/parts.module.css";
import { StepHead } from "../parts/StepHead";
import { CandidateTable } from "./CandidateTable";
import { DeliveredTable } from "./DeliveredTable";
import classes from "./Soles.module.css";

const BALL_HEIGHT_MM: Record<string, number> = { bare: 0.5, tight: 1, fairway: 3.5, lush: 8, sitting_up: 16 };

/** Bounce and sole for each loft: at rest at this player's delivery, ranked, with the sum for every shot. */
export default function SolesStep() {
  const { server } = useStore();
  const [slot, setSlot] = useState(0);
  const result = server.recommendation;
  const club = result?.clubs[Math.min(slot, result.clubs.length - 1)];
  if (!result || !club) return <NoProposal title="Soles" />;
  return (
    <>
      <StepHead title="Soles" aside={`judged by ${result.judge}`}>
        <SegmentedControl
          aria-label="Club"
          value={String(club.slot)}
          data={result.clubs.map((c) => ({ value: String(c.slot), label: `${trimmed(c.loft_deg)}°` }))}
          onChange={(value) => setSlot(Number(value))}
        />
        <span className={parts.unit}>{club.duty}</span>
      </StepHead>
      <ClubView key={club.slot} club={club} result={result} />
    </>
  );
}

function ClubView({ club, result }: { club: Club; result: Recommendation }) {
  const { server } = useStore();
  const [shot, setShot] = useState<string | null>(null);
  const [ghost, setGhost] = useState<string | null>(null);
  const scenario = result.scenarios.find((s) => s.key === (shot ?? leadingDuty(club, result)));
  const delivered = club.delivered.find((d) => d.scenario === scenario?.key);
  const pick = club.candidates[0];
  if (!scenario || !delivered || !pick) return null;
  const ground = server.document.grounds.find((g) => g.name === scenario.ground);
  const other = club.candidates.find((c) => c.code === ghost);
  // the section is drawn at the lean that gives the delivered bounce, so that an opened sole stands as it meets the ground
  const pitch = club.bounce_deg - delivered.bounce_deg;
  return (
    <>
      <p className={classes.caption}>
        <strong>{scenario.shot_name}</strong> on {scenario.ground}: lean {trimmed(scenario.lean_deg)}°, opened{" "}
        {trimmed(scenario.opening_deg)}°
      </p>
      <SoleRest
        outline={pick.outline_mm}
        ghost={other?.outline_mm}
        leanDeg={pitch}
        loftDeg={delivered.loft_deg}
        bounceDeg={delivered.bounce_deg}
        edgeMm={delivered.leading_edge_height_mm}
        ballHeightMm={scenario.kind === "sand" ? 0 : (BALL_HEIGHT_MM[ground?.turf.lie ?? "fairway"] ?? 3.5)}
        sand={scenario.kind === "sand"}
      />
      <p className={classes.verdict}>
        <strong>{club.pinned ? `${pick.name}, by hand.` : `Take ${pick.name}.`}</strong> {club.reason}
      </p>
      <CandidateTable club={club} ghost={ghost} onGhost={setGhost} />
      <DeliveredTable club={club} result={result} chosen={scenario.key} onChoose={setShot} />
    </>
  );
}

function leadingDuty(club: Club, result: Recommendation): string | undefined {
  const mine = result.scenarios.filter((s) => club.duties.includes(s.key));
  const pool = mine.length > 0 ? mine : result.scenarios.filter((s) => s.kind !== "full");
  return pool.reduce((a, b) => (b.share > a.share ? b : a), pool[0] ?? { key: "", share: 0 }).key;
}
