import { Button, Slider } from "@mantine/core";
import { useState } from "react";
import type { Recommendation, Schemas } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { plain } from "../../units/units";
import parts from "../parts/parts.module.css";
import classes from "./Lofts.module.css";

type Factors = Required<Schemas["LadderFactors"]>;

const PARTS = TABLES.ladder_parts as readonly { key: keyof Factors; name: string }[];
const USUAL = Object.fromEntries(PARTS.map(({ key }) => [key, 1])) as Factors;

/** What the penalty of the taken ladder is made of, and how much the fitter lets each part weigh. */
export function Weights({ lofts }: { lofts: Recommendation["lofts"] }) {
  const { draft, edit } = useStore();
  const factors: Factors = { ...USUAL, ...draft.choices.ladder_factors };
  const [moving, setMoving] = useState<Partial<Factors>>({});
  const set = (ladder_factors: Factors) => edit("choices", { ...draft.choices, ladder_factors });
  const touched = PARTS.some(({ key }) => factors[key] !== 1);
  return (
    <section className={classes.weights} aria-label="What counts">
      <header className={parts.tableHead}>
        <h2>What counts: unevenness {lofts.chosen.penalty.toFixed(2)}, lower is better</h2>
        <Button variant="default" size="compact-sm" disabled={!touched} onClick={() => set(USUAL)}>
          Usual weights
        </Button>
      </header>
      <div className={classes.weightGrid}>
        {PARTS.map(({ key, name }) => (
          <div key={key} className={classes.weight}>
            <span>{name}</span>
            <strong>{plain(lofts.chosen.parts[key] ?? 0, 2)}</strong>
            <Slider
              thumbLabel={`Weight of ${name}`}
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
