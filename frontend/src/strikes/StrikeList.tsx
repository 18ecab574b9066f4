import { Button, Kbd } from "@mantine/core";
import type { Strike } from "../api/client";
import classes from "./StrikeList.module.css";
import type { StrikeQueue } from "./useStrikeQueue";

export const REASONS = ["thin", "heavy", "toe or heel", "not the swing meant", "misread"] as const;

interface Props {
  strikes: Strike[];
  /** The figure that matters most here, large. */
  figure: (strike: Strike) => string;
  /** What else is known of it, or what is wrong with it. */
  told: (strike: Strike) => string;
  queue: StrikeQueue;
  onAside: (id: string) => void;
  empty: string;
}

/** Strikes in their order: each can be set aside with its reason, counted again, or undone. */
export function StrikeList({ strikes, figure, told, queue, onAside, empty }: Props) {
  return (
    <ol className={classes.balls} aria-label="Strikes">
      {strikes.map((strike) => (
        <li key={strike.id} data-aside={strike.set_aside !== null}>
          <strong>{figure(strike)}</strong>
          <span>
            {strike.simulated && <b>simulated </b>}
            {strike.set_aside ?? told(strike)}
          </span>
          {strike.set_aside === null ? (
            <Button size="compact-sm" variant="default" onClick={() => onAside(strike.id)}>
              Set aside
            </Button>
          ) : (
            <Button size="compact-sm" variant="default" onClick={() => queue.setAside(strike.id, null)}>
              Count it
            </Button>
          )}
          <Button
            size="compact-sm"
            variant="subtle"
            aria-label={`Undo the strike of ${figure(strike)}`}
            onClick={() => queue.undo(strike.id)}
          >
            Undo
          </Button>
        </li>
      ))}
      {strikes.length === 0 && <li className={classes.none}>{empty}</li>}
    </ol>
  );
}

/** Why a strike does not count: a figure or a press. */
export function AskReason({ onReason }: { onReason: (reason: string) => void }) {
  return (
    <p className={classes.ask} role="alert">
      Why?{" "}
      {REASONS.map((reason, i) => (
        <button key={reason} type="button" className={classes.reason} onClick={() => onReason(reason)}>
          <Kbd>{i + 1}</Kbd> {reason}
        </button>
      ))}
    </p>
  );
}

/** What is wrong on the way to the server, if anything. */
export function QueueState({ queue }: { queue: StrikeQueue }) {
  return (
    <>
      {queue.failure && (
        <p role="alert" className={classes.failure}>
          {queue.failure}
        </p>
      )}
      {queue.offline && (
        <p role="status" className={classes.failure}>
          No connection: {queue.waiting.length} kept in this browser until it is back.
        </p>
      )}
    </>
  );
}
