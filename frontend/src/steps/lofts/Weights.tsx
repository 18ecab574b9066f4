import { Button, Slider } from "@mantine/core";
import { useState } from "react";
import type { Recommendation, Schemas } from "../../api/client";
import { useStore } from "../../app/context";
import { plain } from "../../units/units";
import parts from "../parts/parts.module.css";
import classes from "./Lofts.module.css";

type Factors = Required<Schemas["LadderFactors"]>;

export const PART_WORDS: Record<keyof Factors, string> = {
  uncovered: "uncovered distance",
  gaps: "uneven gaps",
  steps: "steps outside 4 to 6°",
  overlaps: "overlaps",
  top_loft: "top loft for the shot mix",
  alternatives: "no other flight in wind",
  cost: "clubs, bends, practice",
};
const USUAL: Factors = { uncovered: 1, gaps: 1, steps: 1, overlaps: 1, top_loft: 1, alternatives: 1, cost: 1 };

/** What the penalty of the taken ladder is made of, and how much the fitter lets each part weigh. */
export function Weights({ lofts }: { lofts: Recommendation["lofts"] }) {
  const { draft, edit } = useStore();
  const factors: Factors = { ...USUAL, ...draft.choices.ladder_factors };
  const [moving, setMoving] = useState<Partial<Factors>>({});
  const set = (ladder_factors: Factors) => edit("choices", { ...draft.choices, ladder_factors });
  const keys = Object.keys(PART_WORDS) as (keyof Factors)[];
  const touched = keys.some((key) => factors[key] !== 1);
  return (
    <section className={classes.weights} aria-label="What counts">
      <header className={parts.tableHead}>
        <h2>What counts: unevenness {lofts.chosen.penalty.toFixed(2)}, lower is better</h2>
        <Button variant="default" size="compact-sm" disabled={!touched} onClick={() => set(USUAL)}>
          Usual weights
        </Button>
      </header>
      <div className={classes.weightGrid}>
        {keys.map((key) => (
          <div key={key} className={classes.weight}>
            <span>{PART_WORDS[key]}</span>
            <strong>{plain(lofts.chosen.parts[key] ?? 0, 2)}</strong>
            <Slider
              thumbLabel={`Weight of ${PART_WORDS[key]}`}
              min={0}
              max={3}
              step={0.25}
              label={(value) => `× ${value}`}
              value={moving[key] ?? factors[key]}
              marks={[{ value: 1 }]}
              onChange={(value) => setMoving({ ...moving, [key]: value })}
              onChangeEnd={(value) => {
                setMoving({});
                set({ ...factors, [key]: value });
              }}
            />
          </div>
        ))}
      </div>
    </section>
  );
}
