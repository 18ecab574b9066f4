import { NativeSelect } from "@mantine/core";
import type { Ground } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { freeName } from "../parts/freeName";
import parts from "../parts/parts.module.css";
import type { Trip } from "./Trips";
import { VenueSelect } from "./VenueSelect";

/** A trip to a venue of the library, or to a ground of a class. */
export function NewTrip({ names, onAdd }: { names: readonly string[]; onAdd: (trip: Trip) => void }) {
  const { draft } = useStore();
  const home = draft.grounds[0];
  const add = (name: string, ground: Ground, season: boolean) => {
    onAdd({
      name: freeName(name.slice(0, 110), names),
      season,
      from_on: null,
      to_on: null,
      grounds: [{ ...ground, share: 1 }],
    });
  };
  return (
    <div className={parts.fields}>
      <VenueSelect label="A trip to a venue that was read" onPick={(ground) => add(ground.name, ground, false)} />
      {home &&
        TABLES.grounds.map((surface) => (
          <NativeSelect
            key={surface.key}
            label={`Or home with other ${surface.words.toLowerCase()}`}
            value=""
            data={[
              { value: "", label: "choose" },
              ...surface.classes.map((one) => ({ value: one.key, label: one.words })),
            ]}
            onChange={(event) => {
              const found = surface.classes.find((one) => one.key === event.currentTarget.value);
              if (!found) return;
              const here = home[surface.key as "turf"] as unknown as Record<string, unknown>;
              const changed = {
                ...here,
                [surface.reading]: found.usual,
                [surface.readings]: [],
                [surface.source]: "assumed",
              };
              const name = `${found.words} ${surface.words.toLowerCase()}`;
              add(
                name,
                { ...home, name, venue: null, read_on: null, formerly: [], [surface.key]: changed } as Ground,
                true,
              );
            }}
          />
        ))}
    </div>
  );
}
