import { Button, TextInput } from "@mantine/core";
import type { Ground } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useFault } from "../../app/context";
import { useKeys } from "../../app/useKeys";
import { GroundForm } from "../ground/GroundForm";
import { withAnother, without } from "../ground/shares";
import { freeName } from "../parts/freeName";
import { NameField } from "../parts/NameField";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import classes from "./Log.module.css";
import type { Trip } from "./Trips";
import { useVenues, VenueSelect } from "./VenueSelect";

interface FormProps {
  trip: Trip;
  path: string;
  onChange: (trip: Trip) => void;
  onRemove: () => void;
}

/** Name, days and grounds of a trip or a season. */
export function TripForm({ trip, path, onChange, onRemove }: FormProps) {
  const keys = useKeys(trip.grounds.map(({ name }) => ({ name })));
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
              key={keys[n]}
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
      {trip.grounds.length < TABLES.most.grounds && (
        <AddGround
          onAdd={(ground) => {
            const name = freeName(
              ground.name,
              trip.grounds.map((one) => one.name),
            );
            onChange({ ...trip, grounds: withAnother(trip.grounds, { ...ground, name }) });
          }}
        />
      )}
      {trip.grounds.map((ground, n) => (
        <details key={keys[n]} className={classes.ground}>
          <summary>{ground.name}: readings and classes</summary>
          {trip.grounds.length > 1 && (
            <Button
              variant="subtle"
              color="rust"
              size="xs"
              onClick={() => onChange({ ...trip, grounds: without(trip.grounds, n) })}
            >
              Leave {ground.name} out
            </Button>
          )}
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
  return useVenues().records.length > 0 && <VenueSelect label="Play somewhere else there too" mt={10} onPick={onAdd} />;
}
