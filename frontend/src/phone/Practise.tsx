import { useEffect, useRef, useState } from "react";
import { v4 as newId } from "uuid";
import { DrillDrawing } from "../pictures/DrillDrawing/DrillDrawing";
import { ScoreChart } from "../pictures/ScoreChart/ScoreChart";
import { today } from "../units/days";
import { counted, plain } from "../units/units";
import { readCount, writeCount } from "./count";
import { keep, type Score } from "./outbox";
import type { Fate, Opened, Page } from "./usePage";
import { Waiting } from "./Waiting";

type Drill = Page["card"]["drills"][number];

interface Props {
  page: Page;
  /** All of them, those that the studio does not have yet among them. */
  scores: readonly Score[];
  standings: Opened["standings"];
  token: string;
  unsent: readonly Score[];
  fate: Fate;
  onScore: () => void;
}

/** The prescribed drills: one at a time, counted ball by ball, with what was scored before. */
export function Practise({ page, scores, standings, token, unsent, fate, onScore }: Props) {
  const drills = page.card.drills;
  const [at, setAt] = useState(drills[0]?.key ?? "");
  const chosen = drills.find((one) => one.key === at);
  const standing = standings.find((one) => one.drill === at);
  // the mark goes up with the level, by what was scored since
  const drill = chosen && { ...chosen, mark: standing?.mark ?? chosen.mark };
  if (!drill) return <p>The studio has prescribed no drill.</p>;
  return (
    <>
      <div className="pick" role="radiogroup" aria-label="Drill">
        {drills.map((one) => (
          <button key={one.key} type="button" role="radio" aria-checked={one.key === at} onClick={() => setAt(one.key)}>
            {one.name}
          </button>
        ))}
      </div>
      <h1>{drill.name}</h1>
      <p className="quiet">
        Week {week(page.made_on, page.card.practice_weeks)} of {page.card.practice_weeks}: twice a week, {drill.count} a
        go.
      </p>
      <DrillDrawing drawing={drill.drawing} name={drill.name} hand={page.card.hand} />
      <dl>
        <div>
          <dt>set up</dt>
          <dd>{drill.set_up}</dd>
        </div>
        <div>
          <dt>do</dt>
          <dd>{drill.do}</dd>
        </div>
        <div>
          <dt>counts</dt>
          <dd>{drill.score}</dd>
        </div>
        <div>
          <dt>pass</dt>
          <dd>
            {drill.mark} of {drill.count}
            {standing && standing.level > 0 && `, level ${standing.level + 1} of ${standing.levels}`}
          </dd>
        </div>
        <div>
          <dt>worth</dt>
          <dd>{plain(drill.worth_strokes_round, 1)} strokes a round with half the scatter</dd>
        </div>
      </dl>
      {standing && ADVICE[standing.advice] && (
        <p role="status" className="told">
          {ADVICE[standing.advice]}
        </p>
      )}
      {drill.beat !== null && <Beat each={drill.beat} />}
      <ScoreChart
        name="Scores"
        count={drill.count}
        mark={drill.mark}
        scores={scores.filter((one) => one.drill === drill.key)}
      />
      <Count
        key={drill.key}
        drill={drill}
        token={token}
        onDone={(score) => {
          keep(token, { id: newId(), drill: drill.key, score, count: drill.count, on: today() });
          onScore();
        }}
      />
      {unsent.length > 0 && <Waiting what={counted(unsent.length, "score")} many={unsent.length > 1} fate={fate} />}
      <p className="caution">{drill.stop}</p>
    </>
  );
}

const ADVICE: Record<Opened["standings"][number]["advice"], string | null> = {
  "go on": null,
  "next level": "Passed three times in a row: the mark is higher now.",
  "another drill": "Six goes without a pass: ask the studio for another drill.",
  done: "Passed at the last level: this one is done.",
};

/** Which week of the plan it is, the last one from then on. */
function week(from: string, weeks: number) {
  const days = (Date.now() - new Date(`${from}T00:00:00`).getTime()) / 86_400_000;
  return Math.min(Math.max(Math.floor(days / 7) + 1, 1), weeks);
}

/** Two large buttons, ball by ball; the last one can be taken back. */
function Count({ drill, token, onDone }: { drill: Drill; token: string; onDone: (score: number) => void }) {
  const [balls, setBalls] = useState(() => readCount(token, drill.key).slice(0, drill.count - 1));
  useEffect(() => writeCount(token, drill.key, balls), [token, drill.key, balls]);
  const add = (good: boolean) => {
    const next = [...balls, good];
    if (next.length < drill.count) return setBalls(next);
    setBalls([]);
    onDone(next.filter(Boolean).length);
  };
  return (
    <div className="count">
      <p aria-live="polite">
        Ball {balls.length + 1} of {drill.count}
        {balls.length > 0 && `, ${balls.filter(Boolean).length} so far`}
      </p>
      <button type="button" className="good" onClick={() => add(true)}>
        it came off
      </button>
      <button type="button" onClick={() => add(false)}>
        it did not
      </button>
      {balls.length > 0 && (
        <button type="button" className="small" onClick={() => setBalls(balls.slice(0, -1))}>
          take the last one back
        </button>
      )}
    </div>
  );
}

/** An even beat in sound and light. */
function Beat({ each }: { each: number }) {
  const [on, setOn] = useState(false);
  const [lit, setLit] = useState(false);
  const sound = useRef<AudioContext | null>(null);
  useEffect(() => {
    if (!on) return;
    sound.current ??= "AudioContext" in window ? new AudioContext() : null;
    const beat = () => {
      setLit((before) => !before);
      const audio = sound.current;
      if (!audio) return;
      const tone = audio.createOscillator();
      const loud = audio.createGain();
      loud.gain.setValueAtTime(0.4, audio.currentTime);
      loud.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + 0.08);
      tone.frequency.value = 660;
      tone.connect(loud).connect(audio.destination);
      tone.start();
      tone.stop(audio.currentTime + 0.09);
    };
    beat();
    const timer = setInterval(beat, 60_000 / each);
    return () => clearInterval(timer);
  }, [on, each]);
  return (
    <button type="button" className="beat" data-lit={on && lit} aria-pressed={on} onClick={() => setOn(!on)}>
      {on ? "Stop the beat" : `Beat, ${each} a minute`}
    </button>
  );
}
