import { useEffect, useRef, useState } from "react";
import { v4 as newId } from "uuid";
import { today } from "../units/days";
import { counted, metres, showDistance } from "../units/units";
import { Holed } from "./Holed";
import { keepShot, type Shot } from "./outbox";
import { Pick } from "./Phone";
import { type Round, readRound, writeRound } from "./round";
import { Slide } from "./Slide";
import type { Fate, Opened } from "./usePage";
import { Waiting } from "./Waiting";

interface Props {
  opened: Opened;
  token: string;
  unsent: readonly Shot[];
  fate: Fate;
  /** The taps so far of the shot that is being noted: another part of the page may be looked at meanwhile. */
  begun: Begun;
  onBegun: (begun: Begun) => void;
  onShot: () => void;
}

/** Where the ball lay and which club, as far as they were tapped. */
export interface Begun {
  lie: Lie | null;
  club: string | null;
}

export const NOT_BEGUN: Begun = { lie: null, club: null };

type Lie = { situation: string; ground: string; name: string; advised: string | null };

const APPROACH = "approach";

/** Metres that the slider of an approach begins with. */
const USUAL_FAR = 80;

/** A shot in three taps: where it lay, which club, what happened. The last one can be told more of, or taken back. */
export function Note({ opened, token, unsent, fate, begun, onBegun, onShot }: Props) {
  const { page } = opened;
  const [round, setRound] = useState<Round>(() => readRound(token));
  const { lie, club } = begun;
  const [far, setFar] = useState(USUAL_FAR);
  const [ground, setGround] = useState(
    () => round.shots.findLast((one) => one.ground)?.ground ?? page.card.lies[0]?.ground,
  );
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    writeRound(token, round);
  }, [token, round]);
  const stage = lie === null ? "lie" : club === null ? "club" : "result";
  // biome-ignore lint/correctness/useExhaustiveDependencies: each tap leads to the next question
  useEffect(() => {
    if (lie !== null) heading.current?.focus();
  }, [stage]);
  const advised = lie === null ? null : lie.situation === APPROACH ? farClub(opened, far) : lie.advised;
  const names = new Map(opened.clubs.map((one) => [one.code, one.name]));
  const send = (shot: Shot) => {
    keepShot(token, shot);
    onShot();
  };
  const done = (result: string) => {
    if (!lie || !club) return;
    const shot: Shot = {
      id: newId(),
      round: round.id,
      on: round.on,
      situation: lie.situation as Shot["situation"],
      ground: lie.ground,
      distance_m: lie.situation === APPROACH ? far : null,
      club,
      advised,
      result: result as Shot["result"],
      left_m: null,
      holed_in: null,
      removed: false,
    };
    send(shot);
    setRound({ ...round, shots: [...round.shots, shot] });
    onBegun(NOT_BEGUN);
  };
  const last = round.shots.at(-1);
  const change = (part: Partial<Shot>) => {
    if (!last) return;
    // what was sent stays as it was sent: the old one is taken back, the new one has an id of its own
    const next = { ...last, ...part, id: newId() };
    send({ ...last, removed: true });
    send(next);
    setRound({ ...round, shots: [...round.shots.slice(0, -1), next] });
  };
  const back = () => {
    if (!last) return;
    send({ ...last, removed: true });
    setRound({ ...round, shots: round.shots.slice(0, -1) });
  };
  const lies: Lie[] = [
    { situation: APPROACH, ground: "", name: "approach", advised: null },
    ...page.card.lies.map((one) => ({
      situation: one.key.split("|")[0] ?? one.key,
      ground: one.ground,
      name: one.shot_name,
      advised: one.code,
    })),
  ];
  const grounds = [...new Set(page.card.lies.map((one) => one.ground))];
  const many = grounds.length > 1;
  const here = lies.filter((one) => !many || one.ground === "" || one.ground === ground);
  return (
    <>
      {last && lie === null && (
        <section className="last" aria-label="The last shot">
          <p role="status">
            Noted, shot {round.shots.length}: {lies.find((one) => one.situation === last.situation)?.name},{" "}
            {names.get(last.club)}, {opened.results.find((one) => one.key === last.result)?.name}
            {last.left_m !== null && `, ${showDistance(metres(last.left_m), page.distance)} left`}
          </p>
          {last.result !== "holed" && (
            <>
              <Slide
                key={`${round.id} ${round.shots.length}`}
                label="How far was left?"
                value={last.left_m}
                low={0}
                high={40}
                unit={page.distance}
                onChange={(left_m) => change({ left_m })}
              />
              <Holed value={last.holed_in} onChange={(holed_in) => change({ holed_in })} />
            </>
          )}
          <button type="button" className="small" onClick={back}>
            take it back
          </button>
        </section>
      )}
      <h1 ref={heading} tabIndex={-1}>
        {stage === "lie" ? "Where did it lie?" : stage === "club" ? "Which club?" : "What happened?"}
      </h1>
      {lie && (
        <p className="quiet">
          {lie.name}
          {many && lie.ground ? `, ${lie.ground}` : ""}
          {club ? `, ${names.get(club)}` : ""}{" "}
          <button
            type="button"
            className="small"
            onClick={() => {
              onBegun(club === null ? NOT_BEGUN : { lie, club: null });
            }}
          >
            back
          </button>
        </p>
      )}
      {stage === "lie" && (
        <>
          {many && (
            <Pick
              label="Ground"
              value={ground ?? ""}
              options={grounds.map((one) => [one, one] as const)}
              onPick={setGround}
            />
          )}
          <div className="taps">
            {here.map((one) => (
              <button
                key={`${one.situation}|${one.ground}`}
                type="button"
                onClick={() => onBegun({ lie: one, club: null })}
              >
                {one.name}
              </button>
            ))}
          </div>
        </>
      )}
      {stage === "club" && lie && (
        <>
          {lie.situation === APPROACH && (
            <Slide label="To the hole" value={far} low={25} high={150} unit={page.distance} onChange={setFar} />
          )}
          <div className="taps">
            {[...opened.clubs]
              .sort((a, b) => Number(b.code === advised) - Number(a.code === advised))
              .map((one) => (
                <button
                  key={one.code}
                  type="button"
                  data-first={one.code === advised}
                  onClick={() => onBegun({ lie, club: one.code })}
                >
                  {one.name}
                  {one.code === advised && (
                    <>
                      {" "}
                      <small>advised</small>
                    </>
                  )}
                </button>
              ))}
          </div>
        </>
      )}
      {stage === "result" && (
        <div className="taps">
          {opened.results.map((one) => (
            <button key={one.key} type="button" onClick={() => done(one.key)}>
              {one.name}
            </button>
          ))}
        </div>
      )}
      <p className="quiet">
        {counted(round.shots.length, "shot")} of this round. With the studio: {counted(opened.noted_shots, "shot")} of{" "}
        {counted(opened.noted_rounds, "round")}.{" "}
        {round.shots.length > 0 && lie === null && (
          <button type="button" className="small" onClick={() => setRound({ id: newId(), on: today(), shots: [] })}>
            begin another round
          </button>
        )}
      </p>
      {unsent.length > 0 && <Waiting {...standing(unsent)} fate={fate} />}
    </>
  );
}

/** What waits, each shot once: one that is told more of is another that takes its place. */
function standing(unsent: readonly Shot[]) {
  const last = new Map(unsent.map((one) => [one.id, one]));
  const count = [...last.values()].filter((one) => !one.removed).length;
  if (count === 0) return { what: "What was taken back", many: false };
  return { what: counted(count, "shot"), many: count > 1 };
}

/** The club that the page names first for a distance: still air, a medium green, a dry lie, the hole in the middle. */
function farClub(opened: Opened, distance: number): string | null {
  const { far } = opened.page;
  const condition = far.conditions.findIndex((one) => one.join("|") === "still|medium|dry");
  const pin = Math.max(far.pins.indexOf("middle"), 0);
  const off = far.distances_m.map((one) => Math.abs(one - distance));
  const place = far.answers[condition]?.[pin]?.[off.indexOf(Math.min(...off))]?.[0];
  const shot = place === undefined ? undefined : far.shots[place];
  return opened.clubs.find((one) => one.name === shot?.club)?.code ?? null;
}
