import type { Player } from "../../api/client";
import { questionOf, TABLES } from "../../api/tables";
import { useFault, useStore } from "../../app/context";
import { DELIVERY_HEIGHT, Delivery } from "../../pictures/Delivery/Delivery";
import { Below } from "../parts/Below";
import { Choice } from "../parts/Choice";
import { Lines } from "../parts/Lines";
import { NameField } from "../parts/NameField";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import { StepHead } from "../parts/StepHead";
import { DeliveryTable } from "./DeliveryTable";
import classes from "./Player.module.css";
import { SchoolsForm } from "./SchoolsForm";
import { ShotMix } from "./ShotMix";
import { SpeedFields } from "./SpeedFields";

const COUNTS = Array.from({ length: TABLES.ladder.most_wedges }, (_, n) => String(n + 1));
const WEDGES = ["open", ...COUNTS].map((count) => [count, count] as const);

/** Who the player is and how they deliver the club. */
export default function PlayerStep() {
  const { draft, edit, server } = useStore();
  const { player } = draft;
  const set = (change: Partial<Player>) => edit("player", { ...player, ...change });
  const nameFault = useFault("player.name");
  const noteFault = useFault("player.complaints");
  const clubs = server.recommendation?.clubs ?? [];
  const shown = clubs[Math.min(1, clubs.length - 1)]?.candidates[0];
  const { attack_deg, lean_deg, entry_mm } = player.delivery;
  return (
    <>
      <StepHead title="Player" aside={shown ? `drawn with ${shown.name}, at true scale` : undefined} />
      {server.to_come && (
        <p className={classes.toCome} style={{ height: DELIVERY_HEIGHT }}>
          The delivery is drawn here with a club of the set, once it is worked out.
        </p>
      )}
      {shown && (
        <Delivery
          outline={shown.outline_mm}
          leanDeg={lean_deg.mean}
          leanSpreadDeg={lean_deg.spread}
          attackDeg={attack_deg.mean}
          attackSpreadDeg={attack_deg.spread}
          entryMm={entry_mm.mean}
          entrySpreadMm={entry_mm.spread}
        />
      )}
      <DeliveryTable delivery={player.delivery} onChange={(delivery) => set({ delivery })} />
      <div className={`${parts.form} ${classes.columns}`}>
        <fieldset className={parts.group}>
          <legend>Who</legend>
          <div className={parts.fields}>
            <NameField label="Name" value={player.name} error={nameFault?.message} onChange={(name) => set({ name })} />
            <NumberField
              label="Handicap"
              unit=""
              width={90}
              path="player.handicap"
              optional
              placeholder="12"
              value={player.handicap}
              onChange={(handicap) => set({ handicap })}
            />
            <Choice
              label="Hand"
              value={player.hand}
              options={[
                ["right", "right"],
                ["left", "left"],
              ]}
              onChange={(hand) => set({ hand })}
            />
          </div>
          <Lines
            label="Complaints, in their own words"
            style={{ marginTop: 10 }}
            value={player.complaints}
            error={noteFault?.message}
            onChange={(complaints) => set({ complaints })}
          />
        </fieldset>
        <fieldset className={parts.group}>
          <legend>Speed and room in the bag</legend>
          <SpeedFields player={player} onChange={set} />
          <div className={parts.fields} style={{ marginTop: 10 }}>
            <Choice
              label="Wedges wanted"
              path="player.wedge_count"
              value={String(player.wedge_count ?? "open")}
              options={WEDGES}
              onChange={(n) => set({ wedge_count: n === "open" ? null : Number(n) })}
            />
            <Choice
              {...questionOf<Player["delivery"]["opening"]>("opening")}
              value={player.delivery.opening}
              onChange={(opening) => set({ delivery: { ...player.delivery, opening } })}
            />
            <Choice
              {...questionOf<Player["delivery"]["release"]>("release")}
              value={player.delivery.release}
              onChange={(release) => set({ delivery: { ...player.delivery, release } })}
            />
          </div>
        </fieldset>
        <Below>
          <SchoolsForm schools={player.schools} onChange={(schools) => set({ schools })} />
          <ShotMix mix={player.shot_mix} usual={server.default_shot_mix} onChange={(shot_mix) => set({ shot_mix })} />
        </Below>
      </div>
    </>
  );
}
