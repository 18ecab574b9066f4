import type { Club, Recommendation } from "../api/client";
import { useEvidence } from "../evidence/useEvidence";
import { SoleIcon } from "../pictures/SoleIcon/SoleIcon";
import { strokes } from "../pictures/Verdict/Verdict";
import { trimmed } from "../units/units";
import { useStore } from "./context";
import classes from "./SetBench.module.css";

/** A club as it is built, in a line: for the comparison with what was kept. */
export const labelOf = (club: { name: string; loft_deg: number; bounce_deg: number }) =>
  `${club.name}: ${trimmed(club.loft_deg)}°, ${trimmed(club.bounce_deg)}° bounce`;

/** A club of the set: its section, loft and bounce, what it brings and why. */
export function ClubRow({ club, doubt }: { club: Club; doubt: Recommendation["doubt"] }) {
  const { server } = useStore();
  const kept = server.kept?.clubs[club.slot];
  const evidence = useEvidence();
  const drawn = evidence.isPlaceholderData ? undefined : evidence.data;
  const share = drawn?.shares.find((s) => s.slot === club.slot && s.code === club.code)?.share ?? club.survives;
  const times = Math.round((share ?? 0) * (doubt?.draws ?? 0));
  const outline = club.candidates.find((c) => c.code === club.code)?.outline_mm ?? [];
  const bend =
    club.bend_deg === 0 ? "" : `, bent ${trimmed(Math.abs(club.bend_deg))}° ${club.bend_deg > 0 ? "weak" : "strong"}`;
  return (
    <article className={classes.club} aria-label={`${trimmed(club.loft_deg)} degrees`}>
      <span className={classes.icon}>
        <SoleIcon outline={outline} width={96} height={38} />
      </span>
      <p className={classes.figures}>
        <span className={classes.loft}>{trimmed(club.loft_deg)}°</span>
        <span className={classes.bounce}>{trimmed(club.bounce_deg)}° bounce</span>
      </p>
      <p className={classes.duty}>
        {club.owned ? (
          <>
            <strong>{club.name}</strong>
            {bend || " stays"}
          </>
        ) : (
          <>
            <strong>{club.name}</strong>
            {bend}
            {club.replaces ? ` for ${club.replaces}` : ", one more"}
          </>
        )}
      </p>
      <p className={classes.why}>{club.reason}</p>
      {share !== null && doubt && (
        <p className={classes.why}>
          Among the best in {times === doubt.draws ? "all" : `${times} of`} {doubt.draws} trials
          {doubt.assumed_count && ", spreads assumed"}
        </p>
      )}
      {club.proofs.map((proof) => (
        <p key={proof.words} className={classes.why} data-standing={proof.standing}>
          {proof.words}
        </p>
      ))}
      <p className={classes.brings}>
        <strong>{strokes(club.brings_strokes_round)}</strong> brings
      </p>
      {kept && kept !== labelOf(club) && <p className={classes.changed}>Kept: {kept}</p>}
    </article>
  );
}
