import { Button } from "@mantine/core";
import { useState } from "react";
import type { Bag, OwnedWedge } from "../../api/client";
import { TABLES, usualOf } from "../../api/tables";
import { useStore } from "../../app/context";
import { placeAfter, usePlace } from "../../app/usePlace";
import { counted, trimmed } from "../../units/units";
import { Below } from "../parts/Below";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import { StepHead } from "../parts/StepHead";
import classes from "./Bag.module.css";
import { entriesOf } from "./entries";
import { FormerClubs } from "./FormerClubs";
import { OwnedForm } from "./OwnedForm";
import { OwnedRow } from "./OwnedRow";
import { RackTable } from "./RackTable";

const NEW_WEDGE = {
  ...usualOf(TABLES.head),
  name: "sand",
  stamped_loft_deg: 56,
  loft_deg: 56,
  bounce_deg: 10,
  measured: false,
  loft_typed: false,
  make: "forged",
  bend_limit_deg: 2,
  wear_class: "unknown",
  wear: "",
  photos: [],
  bends_deg: [],
  built: null,
} as unknown as OwnedWedge;

/** The clubs above the wedges, the wedges owned, and the rack to choose from. */
export default function BagStep() {
  const { draft, edit, server } = useStore();
  const { bag } = draft;
  const [added, setAdded] = useState(false);
  const entries = entriesOf(bag.wedges);
  const { place, choose, turn } = usePlace("wedge", entries, 0, true);
  const chosen = place ?? 0;
  const wedge = bag.wedges[chosen];
  const set = (change: Partial<Bag>) => edit("bag", { ...bag, ...change });
  const put = (next: OwnedWedge) => set({ wedges: bag.wedges.map((w, i) => (i === chosen ? next : w)) });
  const know = (change: (wedge: OwnedWedge) => OwnedWedge) =>
    edit("bag", (now) => {
      const there = placeAfter(entries, chosen, entriesOf(now.wedges));
      return { ...now, wedges: now.wedges.map((one, i) => (i === there ? change(one) : one)) };
    });
  const add = () => {
    set({ wedges: [...bag.wedges, { ...NEW_WEDGE, name: `wedge ${bag.wedges.length + 1}` }] });
    choose(bag.wedges.length);
    setAdded(true);
  };
  const room = server.wedge_room;
  return (
    <>
      <StepHead title="Bag" aside={`room for ${counted(room, "wedge")} in 14 clubs`}>
        <Button variant="default" size="xs" onClick={add} disabled={bag.wedges.length >= TABLES.most.wedges}>
          Add a wedge they own
        </Button>
      </StepHead>
      <OwnedRow
        wedges={bag.wedges}
        chosen={chosen}
        onChoose={choose}
        pitchingWedge={`${trimmed(bag.pitching_wedge_loft_deg)}°`}
        result={server.recommendation}
      />
      <div className={`${parts.form} ${classes.form}`}>
        <fieldset className={parts.group}>
          <legend>Above the wedges</legend>
          <div className={parts.fields}>
            <NumberField
              label="Nine-iron loft"
              unit="°"
              width={110}
              path="bag.nine_iron_loft_deg"
              value={bag.nine_iron_loft_deg}
              onChange={(v) => v !== null && set({ nine_iron_loft_deg: v })}
            />
            <NumberField
              label="Pitching-wedge loft"
              unit="°"
              width={130}
              path="bag.pitching_wedge_loft_deg"
              value={bag.pitching_wedge_loft_deg}
              onChange={(v) => v !== null && set({ pitching_wedge_loft_deg: v })}
            />
            <NumberField
              label="and its bounce"
              unit="°"
              width={110}
              path="bag.pitching_wedge_bounce_deg"
              value={bag.pitching_wedge_bounce_deg}
              onChange={(v) => v !== null && set({ pitching_wedge_bounce_deg: v })}
            />
            <NumberField
              label="Clubs that are not wedges"
              unit=""
              width={160}
              places={0}
              path="bag.other_clubs"
              value={bag.other_clubs}
              onChange={(v) => v !== null && set({ other_clubs: v })}
            />
          </div>
        </fieldset>
        {wedge && (
          <OwnedForm
            key={turn}
            wedge={wedge}
            target={`own:${chosen}`}
            path={`bag.wedges.${chosen}`}
            onChange={put}
            onKnown={know}
            fresh={added}
            onRemove={() => {
              set({ wedges: bag.wedges.filter((_, i) => i !== chosen) });
              choose(0);
            }}
          />
        )}
      </div>
      <Below>
        <FormerClubs former={bag.former} />
        <RackTable />
      </Below>
    </>
  );
}
