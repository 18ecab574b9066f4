import { Button, Kbd } from "@mantine/core";
import { useEffect, useRef } from "react";
import type { Strike } from "../api/client";
import classes from "./StrikeList.module.css";
import type { Pause, StrikeQueue } from "./useStrikeQueue";
import { waitingWords } from "./waiting";

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
            aria-label={`Take out the strike of ${figure(strike)}`}
            onClick={() => queue.undo(strike.id)}
          >
            Take out
          </Button>
        </li>
      ))}
      {strikes.length === 0 && empty && <li className={classes.none}>{empty}</li>}
    </ol>
  );
}

interface AskProps {
  /** The figure of the strike that is asked about: others may have come since it was chosen. */
  figure: string;
  onReason: (reason: string) => void;
  onCancel: () => void;
}

/** Why a strike does not count: a figure or a press. While it asks, figures belong to it and to nothing else. */
export function AskReason({ figure, onReason, onCancel }: AskProps) {
  const act = useRef({ onReason, onCancel });
  act.current = { onReason, onCancel };
  useEffect(() => {
    const hear = (event: KeyboardEvent) => {
      const reason = REASONS[Number(event.key) - 1];
      if (reason) act.current.onReason(reason);
      else if (event.key === "Escape") act.current.onCancel();
      else return;
      event.preventDefault();
      event.stopImmediatePropagation();
    };
    window.addEventListener("keydown", hear, { capture: true });
    return () => window.removeEventListener("keydown", hear, { capture: true });
  }, []);
  return (
    <p className={classes.ask} role="alert">
      Why does the strike of {figure} not count?{" "}
      {REASONS.map((reason, i) => (
        <button key={reason} type="button" className={classes.reason} onClick={() => onReason(reason)}>
          <Kbd>{i + 1}</Kbd> {reason}
        </button>
      ))}
    </p>
  );
}

const PAUSES: Record<Pause, string> = {
  offline: "No connection: ",
  signed_out: "You are signed out: ",
  busy: "The server could not take them just now, they are tried again: ",
};

/** What is wrong on the way to the server, if anything. */
export function QueueState({ queue }: { queue: StrikeQueue }) {
  return (
    <>
      {queue.failure && (
        <p role="alert" className={classes.failure}>
          {queue.failure}
        </p>
      )}
      {queue.pause && queue.waiting.length > 0 && (
        <p role="status" className={classes.failure}>
          {PAUSES[queue.pause]}
          {waitingWords(queue.waiting).words} kept in this browser.
        </p>
      )}
    </>
  );
}
