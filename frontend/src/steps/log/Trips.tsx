import type { Schemas } from "../../api/client";
import { useStore } from "../../app/context";
import { usePlace } from "../../app/usePlace";
import { showDay } from "../../units/days";
import classes from "./Log.module.css";
import { NewTrip } from "./NewTrip";
import { TripAnswer } from "./TripAnswer";
import { TripForm } from "./TripForm";

export type Trip = Schemas["TripDocument"];

/** Other ground for some days, or for a season: as you are, the setup first, then one other club. */
export function Trips() {
  const { draft, edit } = useStore();
  const trips = draft.after.trips;
  const { place, choose, turn } = usePlace("trip", trips, 0, true);
  const chosen = place ?? 0;
  const trip = trips[chosen];
  const put = (next: Trip[]) => edit("after", { ...draft.after, trips: next });
  return (
    <>
      <section className={classes.section} aria-label="Trips and seasons">
        <div className={classes.tabs}>
          {trips.map((one, n) => (
            <button key={n} type="button" aria-pressed={n === chosen} onClick={() => choose(n)}>
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
            choose(trips.length);
          }}
        />
      </section>
      {trip && (
        <TripForm
          key={turn}
          trip={trip}
          path={`after.trips.${chosen}`}
          onChange={(next) => put(trips.map((one, n) => (n === chosen ? next : one)))}
          onRemove={() => put(trips.filter((_, n) => n !== chosen))}
        />
      )}
      {trip && <TripAnswer key={`${chosen} ${trip.name}`} place={chosen} name={trip.name} />}
      {!trip && (
        <p className={classes.note}>
          Choose a venue that the studio has read, or a class of ground, and see what to change there: the setup first.
        </p>
      )}
    </>
  );
}
