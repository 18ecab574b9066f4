import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { api, type Build, RequestError, unwrap } from "../../api/client";
import { useStore } from "../../app/context";
import { plain } from "../../units/units";
import { StepHead } from "../parts/StepHead";
import classes from "./Build.module.css";
import { ClubSheet } from "./ClubSheet";

/** The set as it is to be built: what is done with every club, in which order, with which parts, and what it costs. */
export default function BuildStep() {
  const { server, draft, edit } = useStore();
  const sheet = useQuery({
    queryKey: ["build", server.id, server.revision, server.strikes_key],
    placeholderData: (last) => last,
    retry: false,
    queryFn: () => unwrap(api.GET("/api/fittings/{fitting_id}/build", { params: { path: { fitting_id: server.id } } })),
  });
  // a wish that cannot be built leaves the fields in sight: it is mended where it was typed
  const last = useRef<Build | null>(null);
  if (sheet.data) last.current = sheet.data;
  const shown = sheet.data ?? last.current;
  const change = (place: number, club: Partial<Build["clubs"][number]["wish"]>) => {
    if (!shown) return;
    const clubs = draft.build.clubs.length > 0 ? draft.build.clubs : shown.clubs.map((one) => one.wish);
    edit("build", { ...draft.build, clubs: clubs.map((one, n) => (n === place ? { ...one, ...club } : one)) });
  };
  return (
    <>
      <StepHead title="Build">
        {draft.build.clubs.length > 0 && (
          <Button size="xs" variant="default" onClick={() => edit("build", { ...draft.build, clubs: [] })}>
            Take the proposed set anew
          </Button>
        )}
      </StepHead>
      {sheet.isError && (
        <div role="alert" className={classes.fault}>
          {faultsOf(sheet.error, shown).map((words) => (
            <p key={words}>{words}</p>
          ))}
          {shown && <p>Below is the sheet as it was before.</p>}
        </div>
      )}
      {sheet.isPending && !shown && (
        <p role="status" className={classes.fault}>
          Working out the sheet …
        </p>
      )}
      {shown && (
        <>
          <section className={classes.said} aria-live="polite">
            <p className={classes.words}>{headline(shown)}</p>
            {shown.strokes_round !== null && shown.proposal_strokes_round !== null && (
              <p className={classes.note}>
                {worth(shown.strokes_round - shown.proposal_strokes_round)}
                {shown.own ? "" : " It is the proposed set with the usual parts; change what the player needs."}
              </p>
            )}
            {shown.as_built_strokes_round !== null && shown.strokes_round !== null && (
              <p className={classes.note}>
                As it was read it costs {plain(Math.abs(shown.as_built_strokes_round - shown.strokes_round), 2)} strokes
                a round {shown.as_built_strokes_round < shown.strokes_round ? "less" : "more"} than the sheet.
              </p>
            )}
            {shown.changed.map((words) => (
              <p key={words} className={classes.note} data-changed>
                {words}
              </p>
            ))}
          </section>
          {shown.clubs.map((club, n) => (
            <ClubSheet
              key={`${club.wish.code}-${n}`}
              club={club}
              wish={draft.build.clubs[n] ?? club.wish}
              sheet={shown}
              onChange={(changes) => change(n, changes)}
            />
          ))}
          <Quote sheet={shown} />
        </>
      )}
    </>
  );
}

/** Why there is no sheet, each with the club that it is about. */
function faultsOf(error: Error, shown: Build | null): string[] {
  const faults = error instanceof RequestError ? (error.body?.faults ?? []) : [];
  if (faults.length === 0) return [error.message];
  return faults.map(({ field, message }) => {
    const [, place, ...path] = /^build\.clubs\.(\d+)\.(.+)$/.exec(field) ?? [];
    const club = place === undefined ? undefined : shown?.clubs[Number(place)];
    const what = (path[0] ?? "").replace(/_(deg|in|mm)$/, "").replaceAll(/[._]/g, " ");
    return [club?.name, what, message].filter(Boolean).join(" ");
  });
}

/** What is done with the clubs, in a line. */
function headline(sheet: Build) {
  const many = (action: string) => sheet.clubs.filter((club) => club.action === action).length;
  const parts = [
    [many("keep"), "kept"],
    [many("bend"), "bent"],
    [many("grind"), "ground"],
    [many("replace"), "new"],
  ] as const;
  return parts.flatMap(([count, words]) => (count > 0 ? [`${count} ${words}`] : [])).join(", ");
}

/** How the set as built stands to the proposal. */
function worth(more: number) {
  if (Math.abs(more) < 0.005) return "Built so it is worth what the proposal says.";
  return `Built so it costs ${plain(Math.abs(more), 2)} strokes a round ${more > 0 ? "more" : "less"} than the proposal.`;
}

/** Labour, parts, tax. */
function Quote({ sheet }: { sheet: Build }) {
  return (
    <dl className={classes.quote} aria-label="Quote">
      {(
        [
          ["Parts", sheet.parts],
          ["Labour", sheet.labour],
          ["Tax", sheet.tax],
          ["Total", sheet.total],
        ] as const
      ).map(([words, price]) => (
        <div key={words}>
          <dt>{words}</dt>
          <dd>{plain(price, 2)}</dd>
        </div>
      ))}
    </dl>
  );
}
