import { showLongDay } from "../units/days";
import { inDistance, metres, plain, trimmed } from "../units/units";
import type { Opened, Page } from "./usePage";

const FROM = { measured: "", modelled: "model", assumed: "assumed" };

/** Wedges, carries, what is ahead, and why it is these clubs. */
export function Clubs({
  page,
  token,
  expires,
  dates,
}: {
  page: Page;
  token: string;
  expires: string;
  dates: Opened["dates"];
}) {
  const { card, distance } = page;
  const shown = (value: number) => plain(inDistance(metres(value), distance));
  return (
    <>
      <h1>My clubs</h1>
      <table aria-label="Wedges">
        <tbody>
          {card.clubs.map((club) => (
            <tr key={club.code}>
              <td>{club.name}</td>
              <td className="num">{trimmed(club.loft_deg)}°</td>
              <td className="num">{trimmed(club.bounce_deg)}° bounce</td>
            </tr>
          ))}
        </tbody>
      </table>
      {card.rules.map((rule) => (
        <p key={rule}>{rule}</p>
      ))}
      <table aria-label={`Carries in ${distance}`}>
        <thead>
          <tr>
            <th>Club and swing</th>
            <th className="num">carry, {distance}</th>
            <th className="num">8 of 10</th>
            <th>from</th>
          </tr>
        </thead>
        <tbody>
          {card.rows.map((row) => (
            <tr key={`${row.loft_deg} ${row.swing}`}>
              <td>
                {trimmed(row.loft_deg)}° {row.swing_name}
              </td>
              <td className="num">
                <strong>{shown(row.carry_m)}</strong>
              </td>
              <td className="num">
                {shown(row.low_m)} to {shown(row.high_m)}
              </td>
              <td>{FROM[row.source]}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet">
        In still air at {plain(card.temperature_c)}&nbsp;°C{card.ball && `, with ${card.ball}`}.
      </p>
      {page.summary.length > 0 && <h2>Why these</h2>}
      {page.summary.map((words) => (
        <p key={words}>{words}</p>
      ))}
      <h2>What is ahead</h2>
      <table aria-label="Dates">
        <tbody>
          {dates.map((one) => (
            <tr key={one.kind}>
              <td>{showLongDay(one.on)}</td>
              <td>{one.words}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        <a className="wide" href={`/api/page/${token}/dates.ics`}>
          Into my calendar
        </a>{" "}
        <a className="wide" href={`webcal://${location.host}/api/page/${token}/dates.ics`}>
          Keep them up to date
        </a>
      </p>
      <p className="quiet">
        From {page.studio}. This page holds until {showLongDay(expires)}.
      </p>
    </>
  );
}
