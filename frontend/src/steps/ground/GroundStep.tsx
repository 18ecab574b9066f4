import { Button } from "@mantine/core";
import type { Ground } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useFault, useStore, useUnits } from "../../app/context";
import { saidOf, usePlace } from "../../app/usePlace";
import { CoreSample } from "../../pictures/CoreSample/CoreSample";
import { metres, showDistance, showPercent } from "../../units/units";
import { Below } from "../parts/Below";
import parts from "../parts/parts.module.css";
import { type Source, SourceMark } from "../parts/SourceMark";
import { StepHead } from "../parts/StepHead";
import { copied } from "./copied";
import classes from "./Ground.module.css";
import { GroundForm } from "./GroundForm";
import { scaled, withAnother, without } from "./shares";
import { VenueLibrary } from "./VenueLibrary";

/** The grounds the player plays on, with their shares, as core samples. */
export default function GroundStep() {
  const { server, draft, edit } = useStore();
  const units = useUnits();
  const grounds = draft.grounds;
  const { place, choose, turn } = usePlace("ground", grounds, 0, true);
  const fault = useFault("grounds");
  const chosen = place ?? 0;
  const ground = grounds[chosen];
  const saved = server.document.grounds;
  const thatch = saidOf(grounds, saved, server.thatch_mm);
  const says = saidOf(grounds, saved, server.readings);
  const total = grounds.reduce((sum, g) => sum + g.share, 0);
  const put = (index: number, next: Ground) =>
    edit(
      "grounds",
      grounds.map((g, i) => (i === index ? next : g)),
    );

  const add = () => {
    const names = new Set(grounds.map((g) => g.name.toLowerCase()));
    let n = grounds.length + 1;
    while (names.has(`ground ${n}`)) n += 1;
    const usual = grounds[chosen];
    if (!usual) return;
    edit("grounds", withAnother(grounds, { ...copied(usual), name: `ground ${n}` }));
    choose(grounds.length);
  };
  const remove = (index: number) => {
    edit("grounds", without(grounds, index));
    choose(0);
  };
  const scale = () => edit("grounds", scaled(grounds));

  return (
    <>
      <StepHead title="Ground" aside={`shares sum to ${showPercent(total)}`}>
        <Button variant="default" size="xs" onClick={add} disabled={grounds.length >= TABLES.most.grounds}>
          Add a ground
        </Button>
        <Button variant="default" size="xs" onClick={scale} disabled={Math.abs(total - 1) < 1e-6}>
          Scale to 100 %
        </Button>
      </StepHead>
      <div className={classes.shares} aria-hidden>
        {grounds.map((g, i) => (
          <span key={g.name + i} style={{ flexGrow: Math.max(g.share, 0.001) }} data-on={i === chosen}>
            {showPercent(g.share)}
          </span>
        ))}
      </div>
      {fault && (
        <p role="alert" className={classes.fault}>
          {fault.message}
        </p>
      )}
      <ul className={classes.cards}>
        {grounds.map((g, i) => (
          <li key={i}>
            <button
              type="button"
              className={classes.card}
              data-on={i === chosen}
              aria-pressed={i === chosen}
              onClick={() => choose(i)}
            >
              <span className={classes.cardHead}>
                <strong>{g.name}</strong>
                <span className={classes.share}>{showPercent(g.share)}</span>
              </span>
              <CoreSample ground={g} thatchMm={thatch[i] ?? 0} />
              <span className={classes.facts}>
                {TABLES.grounds.map((surface) => {
                  const here = g[surface.key as "turf"] as unknown as Record<string, string>;
                  return (
                    <span key={surface.key} className={classes.fact}>
                      <SourceMark source={here[surface.source] as Source} label={surface.words} />{" "}
                      {surface.words.toLowerCase()}
                      {surface.picked && `, ${here[surface.picked.field]?.replace("_", " ")} lie`}
                    </span>
                  );
                })}
                {g.green} greens, lip {showDistance(metres(g.lip_height_m), units.distance, 1)}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {ground && <VenueLibrary key={turn} ground={ground} onChange={(next) => put(chosen, next)} />}
      <Below>
        {ground && (
          <GroundForm
            key={turn}
            ground={ground}
            path={`grounds.${chosen}`}
            onChange={(next) => put(chosen, next)}
            says={says[chosen]}
            onRemove={grounds.length > 1 ? () => remove(chosen) : undefined}
          />
        )}
      </Below>
      <p className={`${parts.unit} ${classes.caution}`}>
        Frozen, rocky or mat-covered ground jars wrists and elbows: limit the balls, stop at pain, and see a clinician.
        One hitter at a time in a bunker.
      </p>
    </>
  );
}
