import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Strike } from "../api/client";
import { useStore } from "../app/context";
import { Panel } from "../app/Panel";
import { parseNumber, trimmed } from "../units/units";
import { type Act, type KeptAct, strikeOf } from "./actStore";
import { clubsOf } from "./clubs";
import { useQueue } from "./queue";
import classes from "./Refusals.module.css";

const DID: Record<Act["kind"], string> = {
  take: "A strike",
  tell: "What was said of a strike",
  undo: "Taking out a strike",
  back: "Putting back a strike",
  ball: "A ball of a proof",
  ball_tell: "What was said of a ball",
  feel: "How a block felt",
  tick: "A tick of the build sheet",
};

/** Acts on strikes that the server does not take: each with its reason, to be mended and sent again, or let go. */
export function Refusals() {
  const { refused } = useQueue();
  if (refused.length === 0) return null;
  return (
    <Panel
      kind="wrong"
      label="Not taken"
      title={`${refused.length} not taken, kept here until ${refused.length === 1 ? "it is" : "they are"} mended or let go`}
    >
      <ul className={classes.list}>
        {refused.map((one) => (
          <li key={one.key}>
            <Refused one={one} />
          </li>
        ))}
      </ul>
    </Panel>
  );
}

function Refused({ one }: { one: KeptAct }) {
  const { server } = useStore();
  const queue = useQueue();
  const field = one.refusal?.field as keyof Strike | undefined;
  const held: Partial<Strike> =
    one.act.kind === "take" ? one.act.strike : one.act.kind === "tell" ? one.act.changes : {};
  const value = field ? held[field] : undefined;
  const isFigure = typeof value === "number";
  const [text, setText] = useState(isFigure ? trimmed(value, 2) : String(value ?? ""));
  const club = clubsOf(server.document).find((c) => one.act.kind === "take" && c.value === one.act.strike.club);
  const next = isFigure ? parseNumber(text) : text;
  const mendable = field !== undefined && value !== undefined && value !== null;
  return (
    <>
      <span className={classes.what}>
        <strong>
          {DID[one.act.kind]}
          {club && ` with the ${club.label}`}
        </strong>
        <span>{one.refusal?.message}</span>
      </span>
      {mendable && (
        <TextInput
          size="xs"
          w={140}
          aria-label={`Mend ${field.replaceAll("_", " ")} of ${strikeOf(one.act).slice(0, 4)}`}
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
      )}
      <Button
        size="xs"
        disabled={mendable && next === null}
        onClick={() => queue.again(one, mendable && field ? mended(one.act, field, next) : undefined)}
      >
        Send again
      </Button>
      <Button size="xs" variant="subtle" color="rust" onClick={() => queue.discard(one)}>
        Let go
      </Button>
    </>
  );
}

function mended(act: Act, field: keyof Strike, value: unknown): Act {
  if (act.kind === "take") return { ...act, strike: { ...act.strike, [field]: value } };
  return act.kind === "tell" ? { ...act, changes: { ...act.changes, [field]: value } } : act;
}
