import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, type Schemas, unwrap } from "../api/client";
import { counted, plain, showPercent } from "../units/units";
import classes from "./Claims.module.css";

type Score = Schemas["ScoreOfClaimsOut"];

/** The studio's own score: what was claimed of changes against what logs show of them. */
export default function Claims() {
  const client = useQueryClient();
  const found = useQuery({ queryKey: ["claims"], queryFn: () => unwrap(api.GET("/api/claims")) });
  const take = useMutation({
    mutationFn: (claims_sd: number) => unwrap(api.PUT("/api/claims", { body: { claims_sd } })),
    onSuccess: (next) => client.setQueryData(["claims"], next),
  });
  return (
    <main className={classes.page}>
      <header>
        <Link to="/">Players</Link>
        <h1>What our claims came to</h1>
      </header>
      {found.isPending && <p role="status">Reading every log …</p>}
      {found.isError && <p role="alert">{found.error.message}</p>}
      {found.data && <Found score={found.data} onTake={(sd) => take.mutate(sd)} busy={take.isPending} />}
      {take.error && <p role="alert">{take.error.message}</p>}
    </main>
  );
}

const between = ({ low, high }: Score["held"]) => `${showPercent(low)} to ${showPercent(high)}`;

function Found({ score, onTake, busy }: { score: Score; onTake: (sd: number) => void; busy: boolean }) {
  const { every, claims, waiting } = score;
  const asked =
    waiting > 0 && `${counted(waiting, "player has", "players have")} a kept set and no shots with its new clubs yet.`;
  if (!every)
    return (
      <p className={classes.big}>
        No claim can be judged yet. <span>{asked}</span>
      </p>
    );
  return (
    <>
      <p className={classes.big}>
        {showPercent(every.share)} of what was claimed came true
        <span>
          8 of 10 between {showPercent(every.low)} and {showPercent(every.high)}, from {counted(every.claims, "claim")}{" "}
          and {counted(every.shots, "shot")}. {asked}
        </span>
      </p>
      <table aria-label="Claims by kind of change">
        <thead>
          <tr>
            <th>change</th>
            <th>claims</th>
            <th>claimed a round</th>
            <th>seen</th>
            <th>came true</th>
            <th>8 of 10</th>
          </tr>
        </thead>
        <tbody>
          {[...score.kinds, every].map((one) => (
            <tr key={one.kind}>
              <th scope="row">{one.kind}</th>
              <td>{one.claims}</td>
              <td>{plain(one.claimed, 2)}</td>
              <td>{plain(one.seen, 2)}</td>
              <td>{showPercent(one.share)}</td>
              <td>
                {showPercent(one.low)} to {showPercent(one.high)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <table aria-label="Claims, player by player">
        <thead>
          <tr>
            <th>player</th>
            <th className={classes.words}>change</th>
            <th>claimed a round</th>
            <th>seen</th>
            <th>8 of 10</th>
            <th>shots</th>
          </tr>
        </thead>
        <tbody>
          {claims.map((one, n) => (
            <tr key={n}>
              <th scope="row">{one.player}</th>
              <td className={classes.words}>{one.kind}</td>
              <td>{plain(one.claimed, 2)}</td>
              <td>{plain(one.seen, 2)}</td>
              <td>
                {plain(one.low, 2)} to {plain(one.high, 2)}
              </td>
              <td>{one.shots}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        New fittings begin with 8 of 10 claims coming to {between(score.held)} of what was claimed; by these claims it
        would be {between(score.would)}. Fittings that are there keep theirs.{" "}
        <Button
          size="xs"
          loading={busy}
          disabled={Math.abs(score.would_be - score.claims_sd) < 0.005}
          onClick={() => onTake(score.would_be)}
        >
          Use it in new fittings
        </Button>
      </p>
      <p className={classes.quiet}>
        Seen is the claim less what its new clubs cost more than expected beside the bag's other clubs; a player who is
        off altogether counts for nothing here.
      </p>
    </>
  );
}
