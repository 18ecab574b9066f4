import type { Schemas } from "../../api/client";
import { Reliable } from "../../pictures/Reliable/Reliable";
import { Years } from "../../pictures/Years/Years";
import { plain, showPercent } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import { FromFile } from "./FromFile";
import classes from "./Log.module.css";
import { NoteShots } from "./NoteShots";
import { Offers } from "./Offers";
import { Rounds } from "./Rounds";
import { CALLS, type Log, useLog } from "./useLog";

/** What happened on the course against what was expected. */
export function Seen() {
  const log = useLog();
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

const HEADLINES: Record<keyof typeof CALLS, string> = {
  "too few": "Too few shots to say",
  "as expected": "As expected",
  worse: "Worse than expected",
  better: "Better than expected",
  open: "Not settled yet",
};

/** The one thing: whether the set does what was expected. */
function Verdict({ log }: { log: Log }) {
  const { whole } = log;
  if (!whole) return <p className={classes.note}>None of these shots was hit with a club of this bag.</p>;
  const over = whole.difference;
  const rounds = log.rounds.length;
  return (
    <section className={classes.verdict} aria-label="Verdict">
      <p className={classes.big}>
        {HEADLINES[whole.call]}
        {whole.call !== "too few" && `: ${plain(Math.abs(over), 2)} strokes a shot ${over > 0 ? "more" : "less"}`}
      </p>
      <p>
        {whole.shots} shots of {rounds} {rounds === 1 ? "round" : "rounds"}: seen {plain(whole.seen, 2)}, expected{" "}
        {plain(whole.expected, 2)}; 8 of 10 between {signed(whole.low)} and {signed(whole.high)}. The log counts{" "}
        {showPercent(whole.weight)} in that, the model the rest.
        {log.unknown > 0 && ` ${log.unknown} more are kept and not judged: their club is not in this bag.`}
      </p>
    </section>
  );
}

export const signed = (value: number) => `${value > 0.004 ? "+" : ""}${plain(value, 2)}`;

function Situations({ lines, clubs }: { lines: Log["situations"]; clubs: Log["clubs"] }) {
  return (
    <CopyTable caption="By situation and club, strokes a shot">
      <thead>
        <tr>
          <th>situation</th>
          <th>club</th>
          <th className={parts.num}>shots</th>
          <th className={parts.num}>seen</th>
          <th className={parts.num}>expected</th>
          <th className={parts.num}>difference</th>
          <th className={parts.num}>8 of 10</th>
          <th>says</th>
        </tr>
      </thead>
      <tbody>
        {lines.flatMap((line) => [
          <Row key={line.key} line={line} strong />,
          ...clubs
            .filter((club) => club.key === line.key)
            .map((club) => <Row key={`${line.key}|${club.club}`} line={club} />),
        ])}
      </tbody>
    </CopyTable>
  );
}

function Row({ line, strong }: { line: Log["clubs"][number]; strong?: boolean }) {
  const { seen } = line;
  return (
    <tr data-kind={strong ? "whole" : undefined}>
      <td>{strong ? <strong>{line.name}</strong> : ""}</td>
      <td>{strong ? "every club" : line.club}</td>
      <td className={parts.num}>{seen.shots}</td>
      <td className={parts.num}>{plain(seen.seen, 2)}</td>
      <td className={parts.num}>{plain(seen.expected, 2)}</td>
      <td className={parts.num}>{signed(seen.difference)}</td>
      <td className={parts.num}>
        {signed(seen.low)} to {signed(seen.high)}
      </td>
      <td data-call={seen.call}>{CALLS[seen.call]}</td>
    </tr>
  );
}

function LineTable({ caption, first, lines }: { caption: string; first: string; lines: Log["months"] }) {
  return (
    <CopyTable caption={caption}>
      <thead>
        <tr>
          <th>{first}</th>
          <th className={parts.num}>shots</th>
          <th className={parts.num}>difference</th>
          <th className={parts.num}>8 of 10</th>
          <th>says</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((line) => (
          <tr key={line.key}>
            <td>{line.name}</td>
            <td className={parts.num}>{line.seen.shots}</td>
            <td className={parts.num}>{signed(line.seen.difference)}</td>
            <td className={parts.num}>
              {signed(line.seen.low)} to {signed(line.seen.high)}
            </td>
            <td>{CALLS[line.seen.call]}</td>
          </tr>
        ))}
      </tbody>
    </CopyTable>
  );
}

/** Which part was off: strike, distance, choice of club. */
function Parts({ parts: found, rounds }: { parts: Schemas["PartsOut"]; rounds: number }) {
  return (
    <section className={classes.section} aria-label="Which part was off">
      <h2>Which part was off, strokes a round over {rounds === 1 ? "one round" : `${rounds} rounds`}</h2>
      <dl className={classes.three}>
        <div>
          <dt>strike</dt>
          <dd>{signed(found.strike)}</dd>
          <dd>
            {found.bad_seen} heavy or thin of {found.known}, {plain(found.bad_expected, 1)} expected; each costs{" "}
            {plain(found.bad_costs, 2)}
          </dd>
        </div>
        <div>
          <dt>distance</dt>
          <dd>{signed(found.distance)}</dd>
          <dd>all else with the club that was taken: how far, how straight, putts</dd>
        </div>
        <div>
          <dt>choice of club</dt>
          <dd>{signed(found.choice)}</dd>
          <dd>{found.instead[0]?.words ?? "every shot with the advised club"}</dd>
        </div>
      </dl>
      {found.instead.length > 1 && (
        <ul className={classes.plain}>
          {found.instead.slice(1, 5).map((one) => (
            <li key={`${one.taken}|${one.advised}`}>{one.words}</li>
          ))}
        </ul>
      )}
    </section>
  );
}

function Leaks({ log }: { log: Log }) {
  if (log.leaks.length === 0) return null;
  return (
    <CopyTable caption="Where strokes go, a round over a scratch player with the best tool">
      <thead>
        <tr>
          <th>situation</th>
          <th className={parts.num}>shots seen</th>
          <th className={parts.num}>by the model</th>
          <th className={parts.num}>with the log</th>
        </tr>
      </thead>
      <tbody>
        {log.leaks.map((leak) => (
          <tr key={leak.situation}>
            <td>{leak.name}</td>
            <td className={parts.num}>{leak.shots}</td>
            <td className={parts.num}>{plain(leak.model, 2)}</td>
            <td className={parts.num}>{plain(leak.seen, 2)}</td>
          </tr>
        ))}
      </tbody>
    </CopyTable>
  );
}

/** One line a head and kind of ground: model, proof and log add up. */
function Heads({ log }: { log: Log }) {
  if (log.heads.length === 0) return null;
  return (
    <CopyTable caption="Heads, strokes a shot">
      <thead>
        <tr>
          <th>head</th>
          <th>ground</th>
          <th className={parts.num}>model</th>
          <th className={parts.num}>proof</th>
          <th className={parts.num}>log</th>
          <th className={parts.num}>together</th>
          <th>log counts</th>
        </tr>
      </thead>
      <tbody>
        {log.heads.map((head) => (
          <tr key={`${head.club}|${head.surface}`}>
            <td>{head.name}</td>
            <td>{head.surface}</td>
            <td className={parts.num}>{plain(head.model, 2)}</td>
            <td className={parts.num}>
              {head.proof_balls > 0 ? `${signed(head.proof)}, ${head.proof_balls} balls` : "–"}
            </td>
            <td className={parts.num}>
              {signed(head.log)}, {head.log_shots} shots
            </td>
            <td className={parts.num}>{plain(head.total, 2)}</td>
            <td>
              {showPercent(head.log_weight)}
              {head.called
                ? ""
                : head.alone === "worse" || head.alone === "better"
                  ? `; its shots went ${head.alone} than expected, by head or player`
                  : "; it may be chance"}
            </td>
          </tr>
        ))}
      </tbody>
    </CopyTable>
  );
}
