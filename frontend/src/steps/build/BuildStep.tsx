import { Button } from "@mantine/core";
import type { Build } from "../../api/client";
import { useStore } from "../../app/context";
import { useQueue } from "../../strikes/queue";
import { counted, plain } from "../../units/units";
import { StepHead } from "../parts/StepHead";
import classes from "./Build.module.css";
import { ClubSheet } from "./ClubSheet";
import { OrderPanel } from "./OrderPanel";
import { PriceList } from "./PriceList";
import { ticksAhead, useBuild } from "./useBuild";

/** The set as it is to be built: what is done with every club, in which order, with which parts, and what it costs. */
export default function BuildStep() {
  const { draft, edit } = useStore();
  const queue = useQueue();
  const query = useBuild();
  const sheet = query.data;
  const change = (place: number, club: Partial<Build["clubs"][number]["wish"]>) => {
    if (!sheet) return;
    const clubs = draft.build.clubs.length > 0 ? draft.build.clubs : sheet.clubs.map((one) => one.wish);
    edit("build", { ...draft.build, clubs: clubs.map((one, n) => (n === place ? { ...one, ...club } : one)) });
  };
  const order = sheet?.order ?? null;
  const ticks = order ? ticksAhead(order, queue.ahead) : [];
  return (
    <>
      <StepHead title="Build">
        {draft.build.clubs.length > 0 && (
          <Button size="xs" variant="default" onClick={() => edit("build", { ...draft.build, clubs: [] })}>
            Take the proposed set anew
          </Button>
        )}
      </StepHead>
      {query.isError && (
        <p role="alert" className={classes.fault}>
          {query.error.message}
        </p>
      )}
      {query.isPending && (
        <p role="status" className={classes.fault}>
          Working out the sheet …
        </p>
      )}
      {sheet && (
        <>
          <section className={classes.said} aria-live="polite">
            <p className={classes.words}>
              {headline(sheet)}
              {sheet.weeks > 0 && `; ready in ${counted(sheet.weeks, "week")}`}
            </p>
            {sheet.faults.length > 0 && (
              <div role="alert" className={classes.note} data-off="true">
                {faultsOf(sheet).map((words) => (
                  <p key={words}>{words}</p>
                ))}
                <p>Until it is mended the club stands here as it comes.</p>
              </div>
            )}
            {sheet.strokes_round !== null && sheet.proposal_strokes_round !== null && (
              <p className={classes.note}>
                {worth("Built so it", sheet.strokes_round - sheet.proposal_strokes_round, "the proposal")}
                {sheet.own ? "" : " It is the proposed set with the usual parts; change what the player needs."}
              </p>
            )}
            {sheet.as_built_strokes_round !== null && sheet.strokes_round !== null && (
              <p className={classes.note}>
                {worth("As it was read it", sheet.as_built_strokes_round - sheet.strokes_round, "the sheet")}
              </p>
            )}
            {sheet.changed.map((words) => (
              <p key={words} className={classes.note} data-changed>
                {words}
              </p>
            ))}
          </section>
          <OrderPanel sheet={sheet} />
          {sheet.clubs.map((club, n) => (
            <ClubSheet
              key={`${club.wish.code}-${n}`}
              place={n}
              club={club}
              wish={draft.build.clubs[n] ?? club.wish}
              sheet={sheet}
              ticks={order ? ticks.filter((tick) => tick.club === n) : null}
              onTick={(operation, done) => order && queue.tick({ order: order.id, club: n, operation, done })}
              onChange={(changes) => change(n, changes)}
            />
          ))}
          <Quote sheet={sheet} />
          <PriceList sheet={sheet} />
        </>
      )}
    </>
  );
}

/** Why clubs cannot be built as wished, each with the club that it is about. */
function faultsOf(sheet: Build): string[] {
  return sheet.faults.map(({ field, message }) => {
    const [, place, ...path] = /^build\.clubs\.(\d+)\.(.+)$/.exec(field) ?? [];
    const club = place === undefined ? undefined : sheet.clubs[Number(place)];
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

/** How many strokes a round something costs more or less than it was to. */
function worth(what: string, more: number, than: string) {
  if (Math.abs(more) < 0.005) return `${what} is worth what ${than} says.`;
  return `${what} costs ${plain(Math.abs(more), 2)} strokes a round ${more > 0 ? "more" : "less"} than ${than}.`;
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
