import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Ground, type Schemas, unwrap } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useFault, useStore, useUnits } from "../../app/context";
import { showDay } from "../../units/days";
import { plain, trimmed } from "../../units/units";
import { Lies } from "../card/Lies";
import { copied } from "../ground/copied";
import { GroundForm } from "../ground/GroundForm";
import { CopyTable } from "../parts/CopyTable";
import { NameField } from "../parts/NameField";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import classes from "./Log.module.css";

type Trip = Schemas["TripDocument"];
type Answer = Schemas["TripOut"];

/** Other ground for some days, or for a season: as you are, the setup first, then one other club. */
export function Trips() {
  const { draft, edit } = useStore();
  const trips = draft.after.trips;
  const [at, setAt] = useState(0);
  const chosen = Math.min(at, trips.length - 1);
  const trip = trips[chosen];
  const put = (next: Trip[]) => edit("after", { ...draft.after, trips: next });
  return (
    <>
      <section className={classes.section} aria-label="Trips and seasons">
        <div className={classes.tabs}>
          {trips.map((one, n) => (
            <button key={n} type="button" aria-pressed={n === chosen} onClick={() => setAt(n)}>
              {one.name}
              <small>
                {one.season
                  ? "every year"
                  : one.from_on && one.to_on
                    ? `${showDay(one.from_on)} to ${showDay(one.to_on)}`
                    : "no days set"}
              </small>
            </button>
          ))}
        </div>
        <NewTrip
          names={trips.map((one) => one.name)}
          onAdd={(one) => {
            put([...trips, one]);
            setAt(trips.length);
          }}
        />
      </section>
      {trip && (
        <TripForm
          key={chosen}
          trip={trip}
          path={`after.trips.${chosen}`}
          onChange={(next) => put(trips.map((one, n) => (n === chosen ? next : one)))}
          onRemove={() => put(trips.filter((_, n) => n !== chosen))}
        />
      )}
      {trip && <TripAnswer name={trip.name} />}
      {!trip && (
        <p className={classes.note}>
          Choose a venue that the studio has read, or a class of ground, and see what to change there: the setup first.
        </p>
      )}
    </>
  );
}

/** A trip to a venue of the library, or to a ground of a class. */
function NewTrip({ names, onAdd }: { names: readonly string[]; onAdd: (trip: Trip) => void }) {
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

interface FormProps {
  trip: Trip;
  path: string;
  onChange: (trip: Trip) => void;
  onRemove: () => void;
}

function TripForm({ trip, path, onChange, onRemove }: FormProps) {
  const fault = useFault(`${path}.name`);
  const dayFault = useFault(`${path}.to_on`);
  const mixFault = useFault(`${path}.grounds`);
  return (
    <section className={classes.section} aria-label="This trip">
      <div className={parts.fields}>
        <NameField
          label="Name"
          value={trip.name}
          error={fault?.message}
          onChange={(name) => name && onChange({ ...trip, name })}
        />
        <label className={classes.check}>
          <input
            type="checkbox"
            checked={trip.season}
            onChange={(event) => onChange({ ...trip, season: event.currentTarget.checked })}
          />
          a season of every year
        </label>
        <TextInput
          label="From"
          type="date"
          value={trip.from_on ?? ""}
          onChange={(event) => onChange({ ...trip, from_on: event.currentTarget.value || null })}
        />
        <TextInput
          label="To"
          type="date"
          value={trip.to_on ?? ""}
          error={dayFault?.message}
          onChange={(event) => onChange({ ...trip, to_on: event.currentTarget.value || null })}
        />
        {trip.grounds.length > 1 &&
          trip.grounds.map((ground, n) => (
            <NumberField
              key={n}
              label={`Share of ${ground.name}`}
              unit="%"
              places={0}
              path={`${path}.grounds.${n}.share`}
              value={100 * ground.share}
              onChange={(share) =>
                share !== null &&
                onChange({
                  ...trip,
                  grounds: trip.grounds.map((one, at) => (at === n ? { ...one, share: share / 100 } : one)),
                })
              }
            />
          ))}
        <Button variant="subtle" color="rust" size="xs" mt={24} onClick={onRemove}>
          Remove this trip
        </Button>
      </div>
      {mixFault && <p role="alert">{mixFault.message}</p>}
      <AddGround
        onAdd={(ground) => {
          const share = 1 / (trip.grounds.length + 1);
          const others = trip.grounds.map((one) => ({ ...one, share: one.share * (1 - share) }));
          const taken = others.some((one) => one.name.toLowerCase() === ground.name.toLowerCase());
          onChange({
            ...trip,
            grounds: [
              ...others,
              { ...ground, share, name: taken ? `${ground.name} ${others.length + 1}` : ground.name },
            ],
          });
        }}
      />
      {trip.grounds.map((ground, n) => (
        <details key={n} className={classes.ground}>
          <summary>{ground.name}: readings and classes</summary>
          <GroundForm
            away
            ground={ground}
            path={`${path}.grounds.${n}`}
            says={undefined}
            onChange={(next) => onChange({ ...trip, grounds: trip.grounds.map((one, at) => (at === n ? next : one)) })}
          />
        </details>
      ))}
    </section>
  );
}

/** Another venue for some of the days: it takes an even share. */
function AddGround({ onAdd }: { onAdd: (ground: Ground) => void }) {
  const library = useQuery({ queryKey: ["venues"], queryFn: () => unwrap(api.GET("/api/venues")) });
  const records = library.data?.records ?? [];
  if (records.length === 0) return null;
  return (
    <NativeSelect
      label="Play somewhere else there too"
      w={240}
      mt={10}
      value=""
      data={[
        { value: "", label: "choose a venue" },
        ...records.map((record, n) => ({
          value: String(n),
          label: `${record.venue}, ${record.season} ${record.read_on.slice(0, 4)}`,
        })),
      ]}
      onChange={(event) => {
        const record = records[Number(event.currentTarget.value)];
        if (event.currentTarget.value === "" || !record) return;
        onAdd({ ...copied(record.ground), name: record.venue, share: 1 });
      }}
    />
  );
}

/** What the bag does there, and what to change first. */
function TripAnswer({ name }: { name: string }) {
  const { server } = useStore();
  const units = useUnits();
  const ask = (doubt: "yes" | "no") => ({
    queryKey: ["trip", server.id, server.revision, name, doubt, units.distance],
    placeholderData: (last: Answer | undefined) => last,
    retry: false,
    queryFn: () =>
      unwrap(
        api.GET("/api/fittings/{fitting_id}/trip", {
          params: { path: { fitting_id: server.id }, query: { name, doubt } },
        }),
      ),
  });
  const saved = server.document.after.trips.some((one) => one.name === name);
  const quick = useQuery({ ...ask("no"), enabled: saved });
  const sure = useQuery({ ...ask("yes"), enabled: saved && quick.isSuccess && !quick.isPlaceholderData });
  const answer = sure.data && !sure.isPlaceholderData ? sure.data : quick.data;
  if (quick.isError)
    return (
      <p role="alert" className={classes.note}>
        {quick.error.message}
      </p>
    );
  if (!answer)
    return (
      <p role="status" className={classes.note}>
        Working it out …
      </p>
    );
  return <Advice answer={answer} drawing={sure.isFetching} />;
}

const WHAT: Record<Answer["advice"], string> = {
  setup: "Change the setup first",
  club: "Take one other club",
  both: "Change both, in this order",
  none: "Go as you are",
};

function Advice({ answer, drawing }: { answer: Answer; drawing: boolean }) {
  const { draft } = useStore();
  const rows = [
    ["as you are", 0, null],
    ["setup first", answer.setup.gain_strokes_round, answer.setup.doubt],
    [
      answer.clubs.bought[0]
        ? `${trimmed(answer.clubs.bought[0].loft_deg)}° ${answer.clubs.bought[0].name}${answer.clubs.left_out ? ` for the ${answer.clubs.left_out}` : " beside the others"}`
        : "one other club",
      answer.clubs.gain_strokes_round,
      answer.clubs.doubt,
    ],
    ["both", answer.both.gain_strokes_round, answer.both.doubt],
  ] as const;
  const most = Math.max(0.1, ...rows.map(([, gain, doubt]) => Math.max(gain, doubt?.high ?? 0)));
  return (
    <>
      <section className={classes.verdict} aria-label="Advice" aria-live="polite">
        <p className={classes.big}>{WHAT[answer.advice]}</p>
        <p>{answer.words}</p>
        <table className={classes.bars} aria-label="Strokes saved a round there">
          <tbody>
            {rows.map(([name, gain, doubt]) => (
              <tr key={name}>
                <th scope="row">{name}</th>
                <td>
                  <span className={classes.track}>
                    <span className={classes.fill} style={{ width: `${(100 * Math.max(gain, 0)) / most}%` }} />
                  </span>
                </td>
                <td className={parts.num}>{plain(gain, 2)}</td>
                <td className={classes.quiet}>
                  {doubt
                    ? `8 of 10: ${plain(doubt.low, 2)} to ${plain(doubt.high, 2)}`
                    : gain > 0 && drawing
                      ? "drawing how sure …"
                      : ""}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className={classes.quiet}>
          Setups of one's own choice would win {plain(answer.setup.gain_at_home_strokes_round, 2)} at home, too. A
          change of more than twice one's own spread is not made at will.
        </p>
      </section>
      {answer.setup.changes.length > 0 && (
        <CopyTable caption="What to change there, shot by shot">
          <thead>
            <tr>
              <th>shot</th>
              <th>club</th>
              <th className={parts.num}>lean, °</th>
              <th className={parts.num}>open, °</th>
              <th className={parts.num}>sole forward, mm</th>
              <th className={parts.num}>times own spread</th>
              <th className={parts.num}>wins a round</th>
            </tr>
          </thead>
          <tbody>
            {answer.setup.changes.map((one) => (
              <tr key={`${one.situation}|${one.ground}`}>
                <td>
                  {one.name}
                  {answer.grounds.length > 1 && `, ${one.ground}`}
                </td>
                <td>{one.club === one.before ? one.club : `${one.club}, not the ${one.before}`}</td>
                <td className={parts.num}>{one.lean_change_deg === 0 ? "–" : more(one.lean_change_deg)}</td>
                <td className={parts.num}>{one.opening_change_deg === 0 ? "–" : more(one.opening_change_deg)}</td>
                <td className={parts.num}>{one.entry_change_mm === 0 ? "–" : more(one.entry_change_mm)}</td>
                <td className={parts.num}>{plain(one.spreads, 1)}</td>
                <td className={parts.num}>{plain(one.gain_strokes_round, 2)}</td>
              </tr>
            ))}
          </tbody>
        </CopyTable>
      )}
      <Lies lies={answer.lies} outlines={answer.outlines_mm} hand={draft.player.hand} />
      <p className={`${classes.note} ${classes.quiet}`}>
        Frozen or rocky ground jars wrists and elbows: stop at pain, and see a clinician.
      </p>
    </>
  );
}

const more = (value: number) => `${value > 0 ? "+" : ""}${trimmed(value)}`;
