import { useEffect, useRef } from "react";
import type { Proof, ProofBall } from "../../api/client";
import { useQueue } from "../../strikes/queue";
import { MonitorBar } from "../strikes/MonitorBar";
import { useSession } from "../strikes/useSession";
import { missingOf } from "./useProofs";

interface Props {
  proof: Proof;
  block: Proof["plan"]["blocks"][number];
  balls: readonly ProofBall[];
}

/**
 * Balls from the strike monitor: every strike that it sends while a block is open is that block's next ball. What is hit
 * beyond a full block, before the next one with another club or situation, stays a strike of the session and is no ball.
 */
export function FromMonitor({ proof, block, balls }: Props) {
  const queue = useQueue();
  const session = useSession();
  const spent = useRef(new Set<string>());
  const inHand = useRef("");
  const code = proof.document.candidates[block.club]?.code.split("@")[0] ?? "pw";
  const station = proof.plan.stations[block.situation] ?? "pitch";
  // an answer of before this page was opened says nothing of what was hit since on another step
  const strikes = session.isFetchedAfterMount ? session.data?.strikes : undefined;
  useEffect(() => {
    if (!strikes) return;
    // what was hit before this page was opened, or in a block of another club or situation, belongs to no later block
    const hand = `${block.club} ${block.situation}`;
    if (inHand.current !== hand) {
      inHand.current = hand;
      for (const strike of strikes) spent.current.add(strike.id);
      return;
    }
    const taken = new Set(balls.map((ball) => ball.id));
    const room = missingOf(proof, block.place, balls);
    const fresh = strikes.filter(
      (s) =>
        s.origin === "device" &&
        s.club === code &&
        s.swing === station &&
        s.carry_m !== null &&
        !spent.current.has(s.id),
    );
    for (const strike of fresh.filter((s) => !taken.has(s.id)).slice(0, room)) {
      spent.current.add(strike.id);
      queue.prove({
        kind: "ball",
        proof: proof.document.id,
        ball: {
          id: strike.id,
          club: block.club,
          situation: block.situation,
          block: block.place,
          outcome: null,
          to_hole_m: null,
          carry_m: strike.carry_m,
          entry_mm: strike.entry_mm,
          mark_length_mm: null,
          mark_depth_mm: null,
          set_aside: null,
          origin: "device",
          simulated: strike.simulated,
        },
      });
    }
  }, [strikes, balls, block, code, station, proof, queue]);
  return <MonitorBar club={code} station={station} />;
}
