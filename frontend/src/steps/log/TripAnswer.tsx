import { useQuery } from "@tanstack/react-query";
import { exactly } from "../../api/answerKey";
import { api, type Schemas, unwrap } from "../../api/client";
import { useStore, useUnits } from "../../app/context";
import { plain, trimmed } from "../../units/units";
import { Lies } from "../card/Lies";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Log.module.css";

type Answer = Schemas["TripOut"];

/** What the bag does there, and what to change first: of the trip in this place, as it is saved. */
export function TripAnswer({ place, name }: { place: number; name: string }) {
  const { server, faults } = useStore();
  const units = useUnits();
  const ask = (doubt: "yes" | "no") => ({
    ...exactly("trip", server, name, doubt, units.distance),
    placeholderData: (last: Answer | undefined) => last,
    retry: false,
    queryFn: ({ signal }: { signal: AbortSignal }) =>
      unwrap(
        api.GET("/api/fittings/{fitting_id}/trip", {
          params: { path: { fitting_id: server.id }, query: { name, doubt } },
          signal,
        }),
      ),
  });
  // under a name that another has, or with a ground that was refused, the answer would be that of something else
  const held = faults.some(({ field }) => field.startsWith(`after.trips.${place}.`));
  const saved = !held && server.document.after.trips[place]?.name === name;
  const quick = useQuery({ ...ask("no"), enabled: saved });
  const sure = useQuery({ ...ask("yes"), enabled: saved && quick.isSuccess && !quick.isPlaceholderData });
  const answer = sure.data && !sure.isPlaceholderData ? sure.data : quick.data;
  if (!saved)
    return (
      <p role="status" className={classes.note}>
        Worked out once the trip is saved.
      </p>
    );
  if (quick.isError)
    return (
      <p role="alert" className={classes.note}>
        {quick.error.message}
      </p>
    );
  if (!answer)
    return (
      <p role="status" className={classes.note}>
        Working it out …
      </p>
    );
  return <Advice answer={answer} drawing={sure.isFetching} />;
}

const WHAT: Record<Answer["advice"], string> = {
  setup: "Change the setup first",
  club: "Take one other club",
  both: "Change both, in this order",
  none: "Go as you are",
};

function Advice({ answer, drawing }: { answer: Answer; drawing: boolean }) {
  const { draft } = useStore();
  const rows = [
    ["as you are", 0, null],
    ["setup first", answer.setup.gain_strokes_round, answer.setup.doubt],
    [
      answer.clubs.bought[0]
        ? `${trimmed(answer.clubs.bought[0].loft_deg)}° ${answer.clubs.bought[0].name}${answer.clubs.left_out ? ` for the ${answer.clubs.left_out}` : " beside the others"}`
        : "one other club",
      answer.clubs.gain_strokes_round,
      answer.clubs.doubt,
    ],
    ["both", answer.both.gain_strokes_round, answer.both.doubt],
  ] as const;
  const most = Math.max(0.1, ...rows.map(([, gain, doubt]) => Math.max(gain, doubt?.high ?? 0)));
  return (
    <>
      <section className={classes.verdict} aria-label="Advice" aria-live="polite">
        <p className={classes.big}>{WHAT[answer.advice]}</p>
        <p>{answer.words}</p>
        <table className={classes.bars} aria-label="Strokes saved a round there">
          <tbody>
            {rows.map(([name, gain, doubt]) => (
              <tr key={name}>
                <th scope="row">{name}</th>
                <td>
                  <span className={classes.track}>
                    <span className={classes.fill} style={{ width: `${(100 * Math.max(gain, 0)) / most}%` }} />
                  </span>
                </td>
                <td className={parts.num}>{plain(gain, 2)}</td>
                <td className={classes.quiet}>
                  {doubt
                    ? `8 of 10: ${plain(doubt.low, 2)} to ${plain(doubt.high, 2)}`
                    : gain > 0 && drawing
                      ? "working out how sure …"
                      : ""}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className={classes.quiet}>
          Setups of one's own choice would win {plain(answer.setup.gain_at_home_strokes_round, 2)} at home, too. A
          change of more than twice one's own spread is not made at will.
        </p>
      </section>
      {answer.setup.changes.length > 0 && (
        <CopyTable caption="What to change there, shot by shot">
          <thead>
            <tr>
              <th>shot</th>
              <th>club</th>
              <th className={parts.num}>lean, °</th>
              <th className={parts.num}>open, °</th>
              <th className={parts.num}>sole forward, mm</th>
              <th className={parts.num}>times own spread</th>
              <th className={parts.num}>wins a round</th>
            </tr>
          </thead>
          <tbody>
            {answer.setup.changes.map((one) => (
              <tr key={`${one.situation}|${one.ground}`}>
                <td>
                  {one.name}
                  {answer.grounds.length > 1 && `, ${one.ground}`}
                </td>
                <td>{one.club === one.before ? one.club : `${one.club}, not the ${one.before}`}</td>
                <td className={parts.num}>{one.lean_change_deg === 0 ? "–" : more(one.lean_change_deg)}</td>
                <td className={parts.num}>{one.opening_change_deg === 0 ? "–" : more(one.opening_change_deg)}</td>
                <td className={parts.num}>{one.entry_change_mm === 0 ? "–" : more(one.entry_change_mm)}</td>
                <td className={parts.num}>{plain(one.spreads, 1)}</td>
                <td className={parts.num}>{plain(one.gain_strokes_round, 2)}</td>
              </tr>
            ))}
          </tbody>
        </CopyTable>
      )}
      <Lies lies={answer.lies} outlines={answer.outlines_mm} hand={draft.player.hand} />
      <p className={`${classes.note} ${classes.quiet}`}>
        Frozen or rocky ground jars wrists and elbows: stop at pain, and see a clinician.
      </p>
    </>
  );
}

const more = (value: number) => `${value > 0 ? "+" : ""}${trimmed(value)}`;
