import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, unwrap } from "../../api/client";
import { useStore, useUnits } from "../../app/context";
import { showDay } from "../../units/days";
import { counted, metres, plain, showDistance } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Log.module.css";
import { RoundsOut } from "./RoundsOut";
import { signed } from "./signed";
import { type Log, type Marked, useMarkRound } from "./useLog";

const BY = { player: "on the phone", fitter: "here", file: "from a file" };
const SHOWN = 12;

/** Every round: opened to its shots, taken out and put back. */
export function Rounds({ log }: { log: Log }) {
  const [open, setOpen] = useState<string | null>(null);
  const [all, setAll] = useState(false);
  const [taken, setTaken] = useState<readonly Marked[]>([]);
  const mark = useMarkRound((marked) =>
    setTaken((now) => [...now.filter((one) => one.round !== marked.round), ...(marked.out ? [marked] : [])]),
  );
  const rounds = all ? log.rounds : log.rounds.slice(0, SHOWN);
  return (
    <section className={classes.section} aria-label="Rounds">
      <h2>{counted(log.rounds.length, "round")}</h2>
      {mark.error && <p role="alert">{mark.error.message}</p>}
      {taken.map(({ round, on }) => (
        <p key={round} role="status" className={classes.quiet}>
          The round of {showDay(on)} is out of the log.{" "}
          <button type="button" className={parts.quietButton} onClick={() => mark.mutate({ round, on, out: false })}>
            Put it back
          </button>
        </p>
      ))}
      <ul className={classes.rounds}>
        {rounds.map((round) => (
          <li key={round.round}>
            <button
              type="button"
              aria-expanded={open === round.round}
              onClick={() => setOpen(open === round.round ? null : round.round)}
            >
              {showDay(round.on)}
            </button>
            <span>
              {counted(round.shots, "shot")}, noted {BY[round.by]}, {signed(round.over)} strokes against what was
              expected
              {round.unknown > 0 && `, ${round.unknown} not judged`}
              {round.same_as && <strong> Another round of that day looks the same: take one out.</strong>}
            </span>
            <Button
              aria-label={`Take out the round of ${showDay(round.on)}`}
              size="xs"
              variant="subtle"
              color="rust"
              onClick={() => mark.mutate({ round: round.round, on: round.on, out: true })}
            >
              Take out
            </Button>
            {open === round.round && <Shots round={round.round} />}
          </li>
        ))}
      </ul>
      {log.rounds.length > SHOWN && (
        <button type="button" className={parts.quietButton} onClick={() => setAll(!all)}>
          {all ? `Show the last ${SHOWN}` : `Show all ${log.rounds.length}`}
        </button>
      )}
      <div className={classes.flush}>
        <RoundsOut onMark={mark.mutate} />
      </div>
    </section>
  );
}

function Shots({ round }: { round: string }) {
  const { server } = useStore();
  const { distance } = useUnits();
  const shots = useQuery({
    queryKey: ["log", server.id, "round", round, server.revision],
    queryFn: () =>
      unwrap(
        api.GET("/api/fittings/{fitting_id}/log/rounds/{round_id}", {
          params: { path: { fitting_id: server.id, round_id: round } },
        }),
      ),
  });
  if (!shots.data) return <p role="status">{shots.error?.message ?? "Reading …"}</p>;
  const far = (value: number | null) => (value === null ? "–" : showDistance(metres(value), distance, 1));
  return (
    <div className={classes.flush}>
      <CopyTable caption="Shots">
        <thead>
          <tr>
            <th>situation</th>
            <th className={parts.num}>to the hole</th>
            <th>club</th>
            <th>result</th>
            <th className={parts.num}>left</th>
            <th className={parts.num}>seen</th>
            <th className={parts.num}>expected</th>
          </tr>
        </thead>
        <tbody>
          {shots.data.shots.map(({ shot, club_name, situation_name, strokes, expected }) => (
            <tr key={shot.id}>
              <td>{situation_name}</td>
              <td className={parts.num}>{far(shot.distance_m)}</td>
              <td>{club_name}</td>
              <td>{shot.result}</td>
              <td className={parts.num}>{far(shot.left_m)}</td>
              <td className={parts.num}>{strokes === null ? "–" : plain(strokes, 2)}</td>
              <td className={parts.num}>{expected === null ? "–" : plain(expected, 2)}</td>
            </tr>
          ))}
        </tbody>
      </CopyTable>
    </div>
  );
}
