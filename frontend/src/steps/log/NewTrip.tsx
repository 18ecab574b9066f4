import { NativeSelect } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { api, type Ground, unwrap } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { copied } from "../ground/copied";
import parts from "../parts/parts.module.css";
import type { Trip } from "./Trips";

/** A trip to a venue of the library, or to a ground of a class. */
export function NewTrip({ names, onAdd }: { names: readonly string[]; onAdd: (trip: Trip) => void }) {
  const { draft } = useStore();
  const library = useQuery({ queryKey: ["venues"], queryFn: () => unwrap(api.GET("/api/venues")) });
  const records = library.data?.records ?? [];
  const home = draft.grounds[0];
  const add = (name: string, ground: Ground, season: boolean) => {
    const plainName = name.slice(0, 110);
    const taken = names.some((one) => one.toLowerCase() === plainName.toLowerCase());
    onAdd({
      name: taken ? `${plainName} ${names.length + 1}` : plainName,
      season,
      from_on: null,
      to_on: null,
      grounds: [{ ...ground, share: 1 }],
    });
  };
  return (
    <div className={parts.fields}>
      <NativeSelect
        label="A trip to a venue that was read"
        value=""
        data={[
          { value: "", label: records.length > 0 ? "choose a venue" : "no venue is kept yet" },
          ...records.map((record, n) => ({
            value: String(n),
            label: `${record.venue}, ${record.season} ${record.read_on.slice(0, 4)}`,
          })),
        ]}
        onChange={(event) => {
          const record = records[Number(event.currentTarget.value)];
          if (event.currentTarget.value === "" || !record) return;
          add(record.venue, { ...copied(record.ground), name: record.venue, share: 1 }, false);
        }}
      />
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
