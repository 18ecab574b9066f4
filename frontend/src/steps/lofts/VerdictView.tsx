import { useHotkeys } from "@mantine/hooks";
import { useState } from "react";
import type { Recommendation } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { useSteps } from "../../evidence/useEvidence";
import { stepName, strokes, Verdict } from "../../pictures/Verdict/Verdict";
import { showPercent } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Lofts.module.css";
import { Situations } from "./Situations";
import { Worth } from "./Worth";

const KEEP_BAG = -1;

/** The steps of change and the leaks; a press on a step takes it, a press on the proposed one lets the choice go. */
export function VerdictView({ result }: { result: Recommendation }) {
  const { draft, edit } = useStore();
  const steps = useSteps(result);
  const [table, setTable] = useState(false);
  const [worth, setWorth] = useState(false);
  useHotkeys([
    ["T", () => setTable((shown) => !shown)],
    ["W", () => setWorth((shown) => !shown)],
  ]);
  const take = (index: number) => {
    const step = result.steps[index];
    if (!step) return;
    const heads = step.kind === "bag" ? KEEP_BAG : step.heads_bought;
    edit("choices", { ...draft.choices, heads_bought: index === result.recommended_step ? null : heads });
  };
  return (
    <>
      <Verdict result={result} steps={steps} onTake={take} />
      <div className={classes.say}>
        <p>{result.verdict}</p>
        <div className={classes.saidBeside}>
          <p>
            {result.practice} {result.first_because}
          </p>
          <button type="button" className={parts.quietButton} aria-pressed={table} onClick={() => setTable(!table)}>
            <kbd>T</kbd> table
          </button>
          <button type="button" className={parts.quietButton} aria-pressed={worth} onClick={() => setWorth(!worth)}>
            <kbd>W</kbd> what a head must win, and where the holes are
          </button>
        </div>
      </div>
      {worth && (
        <>
          <Worth economy={result.economy} />
          <Situations result={result} />
        </>
      )}
      {table && <Tables result={result} />}
    </>
  );
}

/** The picture's numbers. */
function Tables({ result }: { result: Recommendation }) {
  const steps = useSteps(result);
  return (
    <>
      <CopyTable caption="Steps of change, strokes a round">
        <thead>
          <tr>
            <th>Step</th>
            <th>What</th>
            <th className={parts.num}>Gain</th>
            <th className={parts.num}>8 of 10 from</th>
            <th className={parts.num}>to</th>
            <th className={parts.num}>Beats today’s bag</th>
            <th className={parts.num}>Price</th>
          </tr>
        </thead>
        <tbody>
          {steps.map((step, i) => (
            <tr key={`${step.kind}${step.heads_bought}`} data-on={i === result.taken_step}>
              <td>{stepName(step)}</td>
              <td>{step.words}</td>
              <td className={parts.num}>{strokes(step.gain_strokes_round)}</td>
              <td className={parts.num}>{step.low === null ? "" : strokes(step.low)}</td>
              <td className={parts.num}>{step.high === null ? "" : strokes(step.high)}</td>
              <td className={parts.num}>
                {step.better_share === null || i === 0 ? "" : `${showPercent(step.better_share)} of trials`}
              </td>
              <td className={parts.num}>{step.price === null ? "not stated" : step.price.toFixed(0)}</td>
            </tr>
          ))}
        </tbody>
      </CopyTable>
      <CopyTable caption="Where the strokes go, strokes a round left over a scratch player with the best tool">
        <thead>
          <tr>
            <th>Situation</th>
            <th className={parts.num}>Share</th>
            <th className={parts.num}>Left</th>
            <th className={parts.num}>Won</th>
            <th className={parts.num}>A club</th>
            <th className={parts.num}>The player</th>
            <th className={parts.num}>Half the entry’s spread</th>
            <th className={parts.num}>Half the lean’s</th>
            <th className={parts.num}>Half the speed’s</th>
            <th className={classes.pins}>{TABLES.pins.map(({ name }) => name).join(" · ")}</th>
          </tr>
        </thead>
        <tbody>
          {result.leaks.map((leak) => (
            <tr key={leak.situation}>
              <td>{leak.name}</td>
              <td className={parts.num}>{showPercent(leak.share)}</td>
              <td className={parts.num}>{strokes(leak.strokes_round)}</td>
              <td className={parts.num}>{strokes(leak.won)}</td>
              <td className={parts.num}>{strokes(leak.club_part)}</td>
              <td className={parts.num}>{strokes(leak.player_part)}</td>
              {["entry", "lean", "speed"].map((lever) => (
                <td key={lever} className={parts.num}>
                  {strokes(leak.halving[lever] ?? 0)}
                </td>
              ))}
              <td>{TABLES.pins.map(({ key }) => leak.served_by[key]).join(" · ")}</td>
            </tr>
          ))}
        </tbody>
      </CopyTable>
    </>
  );
}
