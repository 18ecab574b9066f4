import { Button } from "@mantine/core";
import { TABLES } from "../../api/tables";
import { useFault, useStore, useUnits } from "../../app/context";
import { useKeys } from "../../app/useKeys";
import { fromDistance, inDistance, metres } from "../../units/units";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import classes from "./Lofts.module.css";

const { from_m: FROM, to_m: TO } = TABLES.bands;
/** How wide a band that is added is, until it is typed [m]. */
const WIDTH_M = 15;

/** How often each distance is faced: from the shot mix, or in bands of the fitter's own. */
export function Distances({ longest }: { longest: number }) {
  const { draft, edit } = useStore();
  const units = useUnits();
  const fault = useFault("choices.distances");
  const bands = draft.choices.distances;
  const keys = useKeys(bands ?? []);
  const set = (distances: typeof bands) => edit("choices", { ...draft.choices, distances });
  const put = (index: number, changes: Partial<NonNullable<typeof bands>[number]>) =>
    set((bands ?? []).map((band, i) => (i === index ? { ...band, ...changes } : band)));
  const start = () => {
    const step = (longest - 30) / 3;
    set(
      [0, 1, 2].map((i) => ({
        from_m: round(30 + i * step),
        to_m: round(30 + (i + 1) * step),
        share: i === 0 ? 0.4 : 0.3,
      })),
    );
  };
  const show = (value: number) => inDistance(metres(value), units.distance);
  return (
    <section className={classes.weights} aria-label="Distances faced">
      <header className={parts.tableHead}>
        <h2>How often each distance is faced: {bands ? "in bands of your own" : "from the shot mix"}</h2>
        {bands ? (
          <Button variant="default" size="compact-sm" onClick={() => set(null)}>
            Back to the shot mix
          </Button>
        ) : (
          <Button variant="default" size="compact-sm" onClick={start}>
            Set bands
          </Button>
        )}
      </header>
      {bands?.map((band, i) => (
        <div key={keys[i]} className={classes.band}>
          <NumberField
            label={`Band ${i + 1}, from`}
            shown="From"
            unit={units.distance}
            width={110}
            path={`choices.distances.${i}.from_m`}
            value={show(band.from_m)}
            onChange={(v) => v !== null && put(i, { from_m: fromDistance(v, units.distance) })}
          />
          <NumberField
            label={`Band ${i + 1}, to`}
            shown="to"
            unit={units.distance}
            width={110}
            path={`choices.distances.${i}.to_m`}
            value={show(band.to_m)}
            onChange={(v) => v !== null && put(i, { to_m: fromDistance(v, units.distance) })}
          />
          <NumberField
            label={`Band ${i + 1}, share`}
            shown="Share"
            unit="%"
            width={100}
            path={`choices.distances.${i}.share`}
            value={100 * band.share}
            onChange={(v) => v !== null && put(i, { share: v / 100 })}
          />
          <Button
            aria-label={`Remove band ${i + 1}`}
            variant="default"
            size="xs"
            disabled={bands.length === 1}
            onClick={() => set(bands.filter((_, j) => j !== i))}
          >
            Remove
          </Button>
          {i === bands.length - 1 && (
            <Button
              variant="default"
              size="xs"
              disabled={bands.length >= TABLES.most.bands || band.to_m > FROM.high}
              onClick={() =>
                set([...bands, { from_m: band.to_m, to_m: Math.min(band.to_m + WIDTH_M, TO.high), share: 0.1 }])
              }
            >
              Another band
            </Button>
          )}
        </div>
      ))}
      {fault && (
        <p role="alert" className={parts.error}>
          {fault.message}
        </p>
      )}
    </section>
  );
}

const round = (value: number) => Math.round(value);
