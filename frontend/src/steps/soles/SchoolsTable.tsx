import { Button } from "@mantine/core";
import { hashKey, useQuery } from "@tanstack/react-query";
import { type MouseEvent, useState } from "react";
import { answerKey } from "../../api/answerKey";
import { api, unwrap } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { useEvidence, useFlips } from "../../evidence/useEvidence";
import { useIsStopped, useStopped } from "../../evidence/useStopped";
import { useWork } from "../../evidence/useWork";
import { strokes } from "../../pictures/Verdict/Verdict";
import { showPercent } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Soles.module.css";

const schoolOf = (question: string) => TABLES.schools.find(({ key }) => key === question);

/** How sure the choice is and what would flip it; what each school would change, on asking. */
export function SchoolsTable() {
  const { server } = useStore();
  const evidence = useEvidence();
  const flips = useFlips();
  const [asked, setAsked] = useState<readonly unknown[] | null>(null);
  const now = answerKey("schools", server);
  const schools = useQuery({
    queryKey: asked ?? now,
    enabled: asked !== null,
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/fittings/{fitting_id}/schools", { params: { path: { fitting_id: server.id } }, signal })),
  });
  const drawsStopped = useIsStopped("evidence");
  const looking = useStopped("flips");
  const comparing = useStopped("schools");
  const stop = () => {
    setAsked(null);
    comparing.stop();
  };
  const stale = asked !== null && hashKey(asked) !== hashKey(now);
  return (
    <>
      <section className={classes.evidence} aria-label="How sure">
        <h2 className={classes.sectionTitle}>How sure, and what would flip it</h2>
        {(evidence.isPending || evidence.isPlaceholderData) && (
          <p className={classes.waitingLine}>
            {evidence.isFetching
              ? "Trying other habits, ground models and strokes tables …"
              : drawsStopped
                ? "The trials were stopped."
                : "Worked out once the next proposal is there."}
            {evidence.isPlaceholderData && " What stands here is of the proposal before."}
          </p>
        )}
        {evidence.data && (
          <ul>
            {evidence.data.shares
              .filter((s) => s.share >= 0.02)
              .map((s) => (
                <li key={`${s.slot}${s.code}`}>
                  <strong>{showPercent(s.share)}</strong> of {evidence.data.draws} trials have {s.name} in one of the
                  level sets
                </li>
              ))}
          </ul>
        )}
        <ul>
          {(flips.isFetching || looking.stopped) && (
            <li className={parts.unit}>
              {flips.isFetching ? (
                <Count of="flips" words="Trying another lean, attack, entry, firmness and sand" />
              ) : (
                (looking.problem ?? "Looking for what would flip it was stopped.")
              )}{" "}
              <button
                type="button"
                className={parts.quietButton}
                onClick={once(flips.isFetching ? looking.stop : looking.again)}
              >
                {flips.isFetching ? "Stop" : "Look again"}
              </button>
            </li>
          )}
          {flips.data?.flips.map((flip) => (
            <li key={flip.axis}>{flip.text}.</li>
          ))}
          {flips.data?.flips.length === 0 && (
            <li>No change within reach of the dials makes another set near it better.</li>
          )}
          {evidence.data?.next_measurement && <li>{evidence.data.next_measurement}</li>}
        </ul>
      </section>
      <div className={classes.ask}>
        <Button variant="default" size="xs" onClick={once(schools.isFetching ? stop : () => setAsked(now))}>
          {schools.isFetching ? "Stop" : "What would each school change?"}
        </Button>
        {schools.isFetching && (
          <span className={parts.unit}>
            <Count of="schools" words="Schools worked out" />
          </span>
        )}
        {comparing.problem && <span role="alert">{comparing.problem}</span>}
        {stale && schools.data && <span className={parts.unit}>the fitting changed since: ask again</span>}
        {schools.isError && <span role="alert">{schools.error.message}</span>}
      </div>
      {schools.data && (
        <CopyTable caption="Schools beside the present choice">
          <thead>
            <tr>
              <th>Question</th>
              <th>School</th>
              <th>What the player would do</th>
              <th className={parts.num}>Saved a round</th>
              <th>The set</th>
            </tr>
          </thead>
          <tbody>
            {schools.data.schools.map((s) => (
              <tr key={s.question + s.choice} data-on={s.changed}>
                <td>{schoolOf(s.question)?.name}</td>
                <td>{schoolOf(s.question)?.choices.find(({ key }) => key === s.choice)?.name}</td>
                <td>{s.asks}</td>
                <td className={parts.num}>{strokes(s.gain_strokes_round)}</td>
                <td>{s.changed ? s.clubs.join(" · ") : "the same set"}</td>
              </tr>
            ))}
          </tbody>
        </CopyTable>
      )}
    </>
  );
}

/** The act of a press; the second click of a double one would take the first back, as the button is the other by then. */
const once = (act: () => void) => (event: MouseEvent) => {
  if (event.detail < 2) act();
};

/** How far a question is that is being worked out. The button beside it stays where it is, and so does the focus. */
function Count({ of, words }: { of: "flips" | "schools"; words: string }) {
  const count = useWork(true).counts?.[of];
  return `${words}${count && count.total > 0 ? `: ${count.done} of ${count.total}` : " …"}`;
}
