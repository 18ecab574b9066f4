import { Button } from "@mantine/core";
import { useState } from "react";
import { useStore } from "../../app/context";
import type { Sections } from "../../app/drafts";
import { today } from "../../units/days";
import { showPercent } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Log.module.css";
import type { Log, Offer } from "./useLog";

const SAID: Record<Offer["state"], string> = {
  open: "not taken",
  accepted: "taken",
  declined: "left as it was",
  newer: "more shots since it was answered",
};

type Held = Pick<Offer, "shot_mix" | "distances" | "table_scale">;
const NOTHING: Held = { shot_mix: null, distances: null, table_scale: null };

/** What the log would put in the place of what was assumed: taken or left, one by one, and nothing by itself. */
export function Offers({ log }: { log: Log }) {
  const { draft, editAll } = useStore();
  const [open, setOpen] = useState<string | null>(null);
  const say = (offer: Offer, accepted: boolean) => {
    const others = draft.after.decisions.filter((one) => one.key !== offer.key);
    const { shot_mix, distances, table_scale } = offer;
    const put = accepted && !offer.evidence ? { shot_mix, distances, table_scale } : null;
    const said = { key: offer.key, accepted, on: today(), shots: offer.shots };
    const after = {
      ...draft.after,
      decisions: [...others, { ...said, put, before: put && offer.before }],
    };
    if (accepted) editAll({ after, ...held(offer, offer) });
    else editAll({ after, ...(offer.state === "accepted" ? held(offer, offer.before ?? NOTHING) : {}) });
  };
  const withoutIt = ({ name, against }: NonNullable<Offer["evidence"]>) =>
    draft.evidence.filter((one) => one.source !== "log" || one.name !== name || one.against !== against);
  // what the log counted, or what stood there before
  const held = (offer: Offer, values: Held): Partial<Sections> => {
    const { economy } = draft.choices;
    return {
      ...(offer.shot_mix && { player: { ...draft.player, shot_mix: values.shot_mix ?? null } }),
      ...(offer.distances && { choices: { ...draft.choices, distances: values.distances ?? null } }),
      ...(offer.table_scale !== null && {
        choices: { ...draft.choices, economy: { ...economy, table_scale: values.table_scale ?? null } },
      }),
      ...(offer.evidence && {
        evidence: values === offer ? [...withoutIt(offer.evidence), offer.evidence] : withoutIt(offer.evidence),
      }),
    };
  };
  return (
    <section className={classes.section} aria-label="What the log offers">
      <h2>Put it in the place of what was assumed?</h2>
      <p className={classes.quiet}>
        Nothing changes by itself; a kept proposal stays as it was. Undo takes an answer back.
      </p>
      <ul className={classes.offers}>
        {log.offers.map((offer) => (
          <li key={offer.key} data-state={offer.state}>
            <div>
              <strong>{offer.name}</strong>
              <span>{offer.words}</span>
              <span className={classes.quiet}>{SAID[offer.state]}</span>
            </div>
            <span className={classes.buttons}>
              {offer.shares && (
                <button
                  type="button"
                  className={parts.quietButton}
                  aria-expanded={open === offer.key}
                  onClick={() => setOpen(open === offer.key ? null : offer.key)}
                >
                  {open === offer.key ? "Hide the shares" : "Show the shares"}
                </button>
              )}
              <Button
                aria-label={`Take it: ${offer.name}`}
                size="xs"
                variant={offer.evidence?.standing === "open" ? "default" : "filled"}
                disabled={offer.state === "accepted"}
                onClick={() => say(offer, true)}
              >
                Take it
              </Button>
              <Button
                aria-label={`Leave it: ${offer.name}`}
                size="xs"
                variant="default"
                disabled={offer.state === "declined"}
                onClick={() => say(offer, false)}
              >
                Leave it
              </Button>
            </span>
            {open === offer.key && offer.shares && (
              <div className={classes.flush}>
                <CopyTable caption={offer.name}>
                  <thead>
                    <tr>
                      <th>what</th>
                      <th className={parts.num}>before</th>
                      <th className={parts.num}>counted</th>
                      <th className={parts.num}>would be</th>
                    </tr>
                  </thead>
                  <tbody>
                    {offer.shares.map((share) => (
                      <tr key={share.name}>
                        <td>{share.name}</td>
                        <td className={parts.num}>{showPercent(share.before, 1)}</td>
                        <td className={parts.num}>{share.count}</td>
                        <td className={parts.num}>{showPercent(share.after, 1)}</td>
                      </tr>
                    ))}
                  </tbody>
                </CopyTable>
              </div>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
