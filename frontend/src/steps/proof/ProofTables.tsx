import { Button } from "@mantine/core";
import { useState } from "react";
import type { Proof } from "../../api/client";
import { useUnits } from "../../app/context";
import { useQueue } from "../../strikes/queue";
import { metres, plain, showDistance, showPercent } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import { ASIDE, LETTERS, OUTCOMES } from "./useProofs";

const nameOf = (outcome: string | null) => OUTCOMES.find((one) => one.key === outcome)?.name ?? "";

/** Every pair of clubs, in each situation and over all of them. */
export function ComparisonTable({ proof }: { proof: Proof }) {
  const { document, verdict } = proof;
  const name = (club: number) => `${LETTERS[club]} ${document.candidates[club]?.name}`;
  return (
    <>
      <CopyTable caption="Differences, strokes a shot: below zero the first is better">
        <thead>
          <tr>
            <th>Clubs</th>
            <th>Situation</th>
            <th className={parts.num}>Balls each</th>
            <th className={parts.num}>Seen</th>
            <th className={parts.num}>Error</th>
            <th className={parts.num}>Watched ±</th>
            <th className={parts.num}>Expected</th>
            <th className={parts.num}>Believed now</th>
            <th className={parts.num}>8 of 10 from</th>
            <th className={parts.num}>to</th>
            <th className={parts.num}>First better</th>
          </tr>
        </thead>
        <tbody>
          {verdict.comparisons.map((c) => (
            <tr key={`${c.first}${c.second}${c.situation}`} data-on={c.situation === null}>
              <td>
                {name(c.first)} less {name(c.second)}
              </td>
              <td>{c.situation === null ? "all" : document.situations[c.situation]?.name}</td>
              <td className={parts.num}>{c.balls}</td>
              <td className={parts.num}>{plain(c.seen, 2)}</td>
              <td className={parts.num}>{plain(c.error, 2)}</td>
              <td className={parts.num}>{c.watched === null ? "" : plain(c.watched, 2)}</td>
              <td className={parts.num}>{plain(c.expected, 2)}</td>
              <td className={parts.num}>{plain(c.mean, 2)}</td>
              <td className={parts.num}>{plain(c.low, 2)}</td>
              <td className={parts.num}>{plain(c.high, 2)}</td>
              <td className={parts.num}>{showPercent(c.chance)}</td>
            </tr>
          ))}
        </tbody>
      </CopyTable>
      <CopyTable caption="What was seen of each club">
        <thead>
          <tr>
            <th>Club</th>
            <th>Situation</th>
            <th className={parts.num}>Balls</th>
            <th className={parts.num}>Strokes a shot</th>
            <th className={parts.num}>Spread</th>
            <th className={parts.num}>Entry mm</th>
            <th className={parts.num}>Entry spread mm</th>
          </tr>
        </thead>
        <tbody>
          {verdict.seen.map((s) => (
            <tr key={`${s.club}${s.situation}`}>
              <td>{name(s.club)}</td>
              <td>{document.situations[s.situation]?.name}</td>
              <td className={parts.num}>{s.balls}</td>
              <td className={parts.num}>{s.balls > 0 ? plain(s.strokes, 2) : ""}</td>
              <td className={parts.num}>{s.balls > 1 ? plain(s.spread, 2) : ""}</td>
              <td className={parts.num}>{s.entry_mm === null ? "" : plain(s.entry_mm)}</td>
              <td className={parts.num}>{s.entry_spread_mm === null ? "" : plain(s.entry_spread_mm)}</td>
            </tr>
          ))}
        </tbody>
      </CopyTable>
    </>
  );
}

/** Every ball, set aside or not; a mishit counts as what it was. */
export function BallTable({ proof }: { proof: Proof }) {
  const units = useUnits();
  const queue = useQueue();
  const [asking, setAsking] = useState<string | null>(null);
  const tell = (id: string, changes: { set_aside?: string | null; out?: boolean }) => {
    queue.prove({ kind: "ball_tell", proof: proof.document.id, id, changes });
    setAsking(null);
  };
  const far = (value: number | null) => (value === null ? "" : showDistance(metres(value), units.distance, 1));
  return (
    <CopyTable caption="Balls in their order">
      <thead>
        <tr>
          <th>Block</th>
          <th>Club</th>
          <th>Outcome</th>
          <th className={parts.num}>To the hole</th>
          <th className={parts.num}>Carry</th>
          <th className={parts.num}>Entry mm</th>
          <th>Mark</th>
          <th className={parts.num}>Strokes</th>
          <th>From</th>
          <th>Counts</th>
        </tr>
      </thead>
      <tbody>
        {proof.balls.map(({ ball, strokes, lie, source, mark }) => (
          <tr key={ball.id}>
            <td>{ball.block + 1}</td>
            <td>{LETTERS[ball.club]}</td>
            <td>
              {nameOf(ball.outcome ?? null)}
              {ball.simulated && ", simulated"}
            </td>
            <td className={parts.num}>{far(ball.to_hole_m ?? null)}</td>
            <td className={parts.num}>{far(ball.carry_m ?? null)}</td>
            <td className={parts.num}>{typeof ball.entry_mm === "number" ? plain(ball.entry_mm) : ""}</td>
            <td>{mark}</td>
            <td className={parts.num}>{plain(strokes, 2)}</td>
            <td>
              {source}, {lie}
            </td>
            <td>
              {ball.set_aside !== null ? (
                <Button size="compact-sm" variant="default" onClick={() => tell(ball.id, { set_aside: null })}>
                  {ball.set_aside}: count it
                </Button>
              ) : asking === ball.id ? (
                ASIDE.map((reason) => (
                  <Button
                    key={reason}
                    size="compact-sm"
                    variant="default"
                    onClick={() => tell(ball.id, { set_aside: reason })}
                  >
                    {reason}
                  </Button>
                ))
              ) : (
                <Button size="compact-sm" variant="subtle" onClick={() => setAsking(ball.id)}>
                  Set aside
                </Button>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </CopyTable>
  );
}
