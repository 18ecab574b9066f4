import { SegmentedControl, Select } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { useState } from "react";
import type { SessionSummary, Strike } from "../../api/client";
import { useStore, useUnits } from "../../app/context";
import { useRemembered } from "../../app/useRemembered";
import { EntryMarks } from "../../pictures/EntryMarks/EntryMarks";
import { clubName, stationOf, stationsOf, useClub } from "../../strikes/clubs";
import { newStrike } from "../../strikes/newStrike";
import { useQueue } from "../../strikes/queue";
import { AskReason, QueueState, REASONS, StrikeList } from "../../strikes/StrikeList";
import { withAhead } from "../../strikes/sending";
import { TakenOut } from "../../strikes/TakenOut";
import { plain } from "../../units/units";
import { StepHead } from "../parts/StepHead";
import { About } from "./About";
import { Findings } from "./Findings";
import { LastStrike } from "./LastStrike";
import { MonitorBar } from "./MonitorBar";
import { Plan } from "./Plan";
import { StrikeForm } from "./StrikeForm";
import classes from "./Strikes.module.css";
import { useSession } from "./useSession";
import { headline, told } from "./words";

const SHOWN = 12;
const FIRST_STATION = "pitch";

/** Every strike of the session as it is hit, and what they say together: the habit, its drift, its faults. */
export default function StrikesStep() {
  const { server } = useStore();
  const units = useUnits();
  const queue = useQueue();
  const query = useSession();
  const { clubs, club, place, choose, turn, was } = useClub(server.document);
  const [chosen, setStation] = useRemembered("station", FIRST_STATION);
  const [asking, setAsking] = useState<string | null>(null);
  const stations = stationsOf(server.document);
  const station = stations.some(([key]) => key === chosen) ? chosen : FIRST_STATION;
  const strikes = withAhead(query.data?.strikes ?? [], queue.ahead);
  const known = query.data;
  // what was hit before is not denied while nobody knows of it
  const unread = known
    ? null
    : query.isError
      ? `The strikes so far cannot be read: ${query.error.message} What is hit now is taken.`
      : "Reading the strikes …";
  // the server counts all of them; what is ahead of its answer comes on top
  const counted = (key: string, { stations, strikes: told }: SessionSummary) =>
    (stations.find((s) => s.station === key)?.count ?? 0) + counting(strikes, key) - counting(told, key);
  const counts = known ? Object.fromEntries(stations.map(([key]) => [key, counted(key, known)])) : null;
  const here = strikes.filter((s) => s.swing === station);
  const last = strikes.at(-1);
  const [held, hold] = useState<string | null>(null);
  const seen = strikes.find((strike) => strike.id === held) ?? last;
  // one that was taken out meanwhile is asked about no longer
  const asked = strikes.find((strike) => strike.id === asking);
  const aside = (id: string, reason: string) => {
    queue.setAside(id, reason);
    setAsking(null);
  };
  const inSand = stationOf(station)?.in_sand ?? false;
  // half a mark is of the club and the station that it was made with
  const hit = `${station} ${turn}`;
  const [half, setHalf] = useState<{ mm: number; hit: string } | null>(null);
  const entered = half?.hit === hit ? half.mm : null;
  const turnStation = (by: number) =>
    setStation(
      turned(
        stations.map(([key]) => key),
        station,
        by,
      ),
    );
  const turnClub = (by: number) => choose(((place ?? -by) + by + clubs.length) % clubs.length);
  // a remote works wherever the focus is, also on the station that was just pressed
  useHotkeys(
    [
      ["PageDown", () => turnStation(1)],
      ["PageUp", () => turnClub(1)],
    ],
    [],
  );
  useHotkeys([
    ["s", () => turnStation(1)],
    ["shift+S", () => turnStation(-1)],
    ["c", () => turnClub(1)],
    ["shift+C", () => turnClub(-1)],
    ["Escape", () => setHalf(null)],
    ["m", () => last && setAsking(last.id)],
    ["u", () => last && queue.undo(last.id)],
  ]);
  const mine = query.data?.stations.find((s) => s.station === station);
  const entry = mine?.figures.find((f) => f.key === "entry");
  const names = Object.fromEntries(stations);
  const soleWidth = (code: string) => server.document.bag.wedges[Number(code.replace("own:", ""))]?.sole_width_mm ?? 19;
  return (
    <>
      <StepHead
        title="Strikes"
        aside={
          query.data && query.data.simulated > 0
            ? `${query.data.simulated} of ${query.data.total + strikes.length - query.data.strikes.length} simulated`
            : ""
        }
      >
        <SegmentedControl
          aria-label="Station"
          size="xs"
          value={station}
          data={stations.map(([value, label]) => ({ value, label }))}
          onChange={setStation}
        />
        <Select
          aria-label="Club"
          size="xs"
          w={160}
          allowDeselect={false}
          placeholder="choose one"
          value={club?.value ?? null}
          data={clubs.map(({ value, label }) => ({ value, label }))}
          onChange={(value) => value && choose(clubs.findIndex((one) => one.value === value))}
        />
      </StepHead>
      {club ? (
        <MonitorBar club={club.value} station={station} />
      ) : (
        <p role="alert" className={classes.gone}>
          {was} is out of the bag: choose the club that is hit.
        </p>
      )}
      <LastStrike strike={last} names={names} unread={unread} />
      <EntryMarks
        strikes={here}
        outliers={entry?.outliers ?? []}
        mean={entry?.mean ?? null}
        spread={entry?.spread ?? null}
        low={entry?.low ?? null}
        high={entry?.high ?? null}
        sand={inSand}
        entered={entered}
        onMark={
          club &&
          ((mm) => {
            if (!inSand) return queue.take({ ...newStrike(club.value, club.loft, station), entry_mm: mm });
            if (entered === null || mm <= entered) return setHalf({ mm, hit });
            setHalf(null);
            queue.take({ ...newStrike(club.value, club.loft, station), entry_mm: entered, exit_mm: mm });
          })
        }
      />
      <div className={classes.middle}>
        <div className={classes.left}>
          {club && (
            <StrikeForm
              key={hit}
              of={`${station} ${club.label} ${club.loft}`}
              onTake={(figures) => queue.take({ ...newStrike(club.value, club.loft, station), ...figures })}
            />
          )}
          {asked && (
            <AskReason
              figure={headline(asked, units)}
              onReason={(reason) => aside(asked.id, reason)}
              onCancel={() => setAsking(null)}
            />
          )}
          <QueueState queue={queue} />
          {seen && (
            <About
              key={seen.id}
              strike={seen}
              earlier={seen !== last}
              onHold={(held) => hold(held ? seen.id : null)}
              soleWidth={soleWidth(seen.club)}
              hand={server.document.player.hand}
              queue={queue}
            />
          )}
          <Plan stations={stations} counts={counts} current={station} onChoose={setStation} />
        </div>
        <StrikeList
          strikes={[...here].reverse().slice(0, SHOWN)}
          figure={(strike) => headline(strike, units)}
          told={(strike) => `${clubName(server.document, strike.club)}: ${told(strike, units)}`}
          queue={queue}
          onAside={setAsking}
          empty={
            unread !== null
              ? ""
              : station === "practice"
                ? "Ten practice swings first: press the ground where the sole brushed it. Does it find the same spot?"
                : `No strike at this station yet. Type what was measured, or press the ground where the sole landed. Reasons for setting one aside: ${REASONS.join(", ")}.`
          }
        />
      </div>
      <TakenOut
        told={(strike) => `${names[strike.swing] ?? strike.swing}, ${headline(strike, units)} ${told(strike, units)}`}
      />
      {query.data && <Findings session={query.data} station={station} />}
      {mine && mine.count > SHOWN && (
        <p className={classes.foot}>
          {plain(mine.count)} strikes count at this station; the last {SHOWN} are shown.
        </p>
      )}
    </>
  );
}

/** The one after, or before, in a list that goes round. */
function turned(keys: readonly string[], now: string, by: number): string {
  const at = keys.indexOf(now);
  return keys[(at + by + keys.length) % keys.length] ?? now;
}

/** How many strikes of a station count. */
const counting = (strikes: readonly Strike[], station: string) =>
  strikes.filter((strike) => strike.swing === station && strike.set_aside === null).length;
