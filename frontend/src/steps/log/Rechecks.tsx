import { useQuery } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { useStore, useUnits } from "../../app/context";
import { showDay } from "../../units/days";
import { count, counted, metres, plain, showDistance, showPercent } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import { DueLine } from "./DueLine";
import classes from "./Log.module.css";
import { signed } from "./signed";

/** What is due and why then; lofts that were read again; what grooves have lost. */
export function Rechecks() {
  const { server, draft, edit } = useStore();
  const { distance } = useUnits();
  const after = useQuery({
    queryKey: ["after", server.id, server.revision],
    placeholderData: (last) => last,
    retry: false,
    queryFn: () => unwrap(api.GET("/api/fittings/{fitting_id}/after", { params: { path: { fitting_id: server.id } } })),
  });
  if (!after.data)
    return (
      <p role={after.isError ? "alert" : "status"} className={classes.note}>
        {after.error?.message ?? "Working out what is due …"}
      </p>
    );
  const { due, drifts, wear, since, since_words, drift_strokes_round } = after.data;
  const use = draft.after.use;
  const late = due.filter((one) => one.late);
  const far = (value: number) => showDistance(metres(value), distance, 1);
  return (
    <>
      <section className={classes.verdict} aria-label="What is due">
        <p className={classes.big}>
          {late.length > 0
            ? `${counted(late.length, "thing is", "things are")} due`
            : `Next: ${showDay(due[0]?.on ?? since)}`}
        </p>
        <p>
          Counted from {showDay(since)}, {since_words}.
        </p>
        <ul className={classes.due}>
          {due.map((one) => (
            <DueLine key={one.key} due={one} />
          ))}
        </ul>
        <div className={parts.fields}>
          <NumberField
            label="Rounds a year"
            unit="rounds"
            path="after.use.rounds_year"
            optional
            placeholder="not said"
            places={0}
            value={use.rounds_year ?? null}
            onChange={(rounds_year) => edit("after", { ...draft.after, use: { ...use, rounds_year } })}
          />
          <NumberField
            label="Range balls a week"
            unit="balls"
            path="after.use.range_balls_week"
            optional
            placeholder="not said"
            places={0}
            value={use.range_balls_week ?? null}
            onChange={(range_balls_week) => edit("after", { ...draft.after, use: { ...use, range_balls_week } })}
          />
        </div>
      </section>
      <section className={classes.section} aria-label="Lofts read again">
        <h2>Lofts read again</h2>
        {drifts.length === 0 ? (
          <p className={classes.quiet}>
            Put a built club into the gauge in Bag: what was read after the day it was built stands here, with what the
            drift does.
          </p>
        ) : (
          <>
            <p>
              {drifts.some((one) => one.advice === "bend back")
                ? `Bend back ${drifts
                    .filter((one) => one.advice === "bend back")
                    .map((one) => one.name)
                    .join(" and ")}.`
                : "Leave them as they are."}{" "}
              All drifts together: {signed(drift_strokes_round)} strokes a round.
            </p>
            <div className={classes.flush}>
              <CopyTable caption="Drift">
                <thead>
                  <tr>
                    <th>club</th>
                    <th className={parts.num}>built, °</th>
                    <th className={parts.num}>now, °</th>
                    <th className={parts.num}>drift, °</th>
                    <th className={parts.num}>full carry then</th>
                    <th className={parts.num}>now</th>
                    <th className={parts.num}>strokes a round</th>
                    <th>advice</th>
                    <th>read</th>
                  </tr>
                </thead>
                <tbody>
                  {drifts.map((one) => (
                    <tr key={one.code}>
                      <td>{one.name}</td>
                      <td className={parts.num}>{plain(one.built_deg, 2)}</td>
                      <td className={parts.num}>{plain(one.now_deg, 2)}</td>
                      <td className={parts.num}>{signed(one.drift_deg)}</td>
                      <td className={parts.num}>{far(one.carry_built_m)}</td>
                      <td className={parts.num}>{far(one.carry_now_m)}</td>
                      <td className={parts.num}>{signed(one.strokes_round)}</td>
                      <td>{one.advice}</td>
                      <td>{one.read_on === null ? "typed" : showDay(one.read_on)}</td>
                    </tr>
                  ))}
                </tbody>
              </CopyTable>
            </div>
            <p className={classes.quiet}>Bend within the maker's limit for the head, and read it again after.</p>
          </>
        )}
      </section>
      <section className={classes.section} aria-label="Grooves">
        <h2>Grooves, by a rule of judgement</h2>
        <p>
          About {counted(wear.strikes, "strike")} with each wedge since: {showPercent(wear.worn)} worn. A 10:30 swing
          spins {count(wear.spin_wet_now_rpm)} instead of {count(wear.spin_wet_rpm)}&nbsp;rpm from a wet lie and{" "}
          {count(wear.spin_dry_now_rpm)} instead of {count(wear.spin_dry_rpm)} from a dry one; wet balls run{" "}
          {far(wear.run_more_wet_m)} more. That costs about {plain(wear.strokes_round, 2)} strokes a round. Whether worn
          grooves still conform, the rules body says.
        </p>
      </section>
    </>
  );
}
