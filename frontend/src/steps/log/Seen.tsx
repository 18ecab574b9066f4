import { Reliable } from "../../pictures/Reliable/Reliable";
import { Years } from "../../pictures/Years/Years";
import { showPercent } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import { FromFile } from "./FromFile";
import classes from "./Log.module.css";
import { NoteShots } from "./NoteShots";
import { Offers } from "./Offers";
import { Rounds } from "./Rounds";
import { RoundsOut } from "./RoundsOut";
import { Heads, Leaks, LineTable, Situations } from "./SeenTables";
import { Parts, Verdict } from "./SeenVerdict";
import { useLog, useMarkRound } from "./useLog";

/** What happened on the course against what was expected. */
export function Seen() {
  const log = useLog();
  const mark = useMarkRound(() => {});
  if (log.isPending)
    return (
      <p role="status" className={classes.note}>
        Reading the log …
      </p>
    );
  if (log.isError)
    return (
      <p role="alert" className={classes.note}>
        {log.error.message}
      </p>
    );
  const found = log.data;
  if (found.shots === 0)
    return (
      <>
        <section className={classes.empty}>
          <p>
            No shot is noted yet. The player notes them on the phone page in three taps a shot; here they can be noted
            from a card, or read from a file.
          </p>
        </section>
        <NoteShots log={found} />
        <FromFile />
        {mark.error && <p role="alert">{mark.error.message}</p>}
        <RoundsOut onMark={mark.mutate} />
      </>
    );
  return (
    <>
      <Verdict log={found} />
      <Offers log={found} />
      <Situations lines={found.situations} clubs={found.clubs} />
      {found.parts && <Parts parts={found.parts} rounds={found.rounds.length} />}
      <section className={classes.section} aria-label="How sure the model was">
        <h2>A clean strike: how often it was expected, how often it came</h2>
        <Reliable stretches={found.reliability} />
        <div className={classes.flush}>
          <CopyTable caption="Clean strikes">
            <thead>
              <tr>
                <th>expected</th>
                <th className={parts.num}>shots</th>
                <th className={parts.num}>mean expected</th>
                <th className={parts.num}>came</th>
                <th className={parts.num}>8 of 10</th>
              </tr>
            </thead>
            <tbody>
              {found.reliability.map((one) => (
                <tr key={one.low}>
                  <td>
                    {showPercent(one.low)} to {showPercent(one.high)}
                  </td>
                  <td className={parts.num}>{one.shots}</td>
                  <td className={parts.num}>{showPercent(one.expected)}</td>
                  <td className={parts.num}>{showPercent(one.came)}</td>
                  <td className={parts.num}>
                    {showPercent(one.came_low)} to {showPercent(one.came_high)}
                  </td>
                </tr>
              ))}
            </tbody>
          </CopyTable>
        </div>
      </section>
      <section className={classes.section} aria-label="Month by month">
        <h2>Strokes a shot more than expected, month by month</h2>
        <Years months={found.months} />
        <div className={classes.flush}>
          <LineTable caption="Months" first="month" lines={found.months} />
        </div>
      </section>
      <Leaks log={found} />
      <Heads log={found} />
      <Rounds log={found} />
      <NoteShots log={found} />
      <FromFile />
    </>
  );
}
