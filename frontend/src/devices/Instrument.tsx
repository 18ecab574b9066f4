import { Button } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../api/client";
import { lastFailure } from "../api/lastFailure";
import { useStore } from "../app/context";
import { plain } from "../units/units";
import classes from "./Instrument.module.css";
import { useHearing } from "./live";
import { State } from "./State";
import { DEVICE_NAMES, type InstrumentKind, stateWords, useDevices, useInstrument, useReadings } from "./useDevices";

type Reading = Schemas["ReadingDocument"];
export type ReadSummary = Schemas["ReadSummary"];

interface Props {
  kind: InstrumentKind;
  /** What it reads: own:N for a club in the gauge, or the name of a ground. */
  target: string;
  /** The same in words. */
  name: string;
  /** One reading in words. */
  told: (figures: Record<string, number>) => string;
  /** What the readings say together, in words, and whether the fitting stands on them. */
  says: (summary: ReadSummary) => string;
  used: (summary: ReadSummary, readings: Reading[]) => boolean;
  onUse: (summary: ReadSummary, readings: Reading[]) => void;
}

/** An instrument beside the fitter: connected to one club or ground, its readings as they come, taken over by a press. */
export function Instrument({ kind, target, name, told, says, used, onUse }: Props) {
  const { server } = useStore();
  const client = useQueryClient();
  const hearing = useHearing();
  const device = useDevices().data?.devices.find((d) => d.kind === kind);
  const readings = useReadings();
  const put = useInstrument(kind);
  const key = ["readings", server.id];
  const aside = useMutation({
    mutationFn: ({ id, set_aside }: { id: string; set_aside: string | null }) =>
      unwrap(
        api.PATCH("/api/fittings/{fitting_id}/readings/{reading_id}", {
          params: { path: { fitting_id: server.id, reading_id: id } },
          body: { set_aside },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: key }),
  });
  if (!device) return null;
  const mine = readings.data?.readings.filter((r) => r.kind === kind && r.target === target) ?? [];
  const summary = readings.data?.summaries.find((s) => s.kind === kind && s.target === target);
  const here = device.wanted && device.target === target;
  const counting = mine.filter((reading) => reading.set_aside === null);
  const failure = lastFailure(put, aside);
  return (
    <section className={classes.instrument} aria-label={`${DEVICE_NAMES[kind]}: ${name}`}>
      <div className={classes.line}>
        <Button
          size="xs"
          variant="default"
          disabled={!device.available || put.isPending}
          onClick={() => put.mutate({ wanted: !here, target })}
        >
          {here ? `Stop the ${DEVICE_NAMES[kind]}` : `Read ${name} with the ${DEVICE_NAMES[kind]}`}
        </Button>
        <State state={here ? device.state : "off"}>
          {here || !device.available ? stateWords(device, hearing) : device.wanted ? "connected elsewhere" : "off"}
        </State>
        {here && device.refused > 0 && (
          <span className={classes.refused}>
            {device.refused} refused or flagged, the last: {device.last_refusal}
          </span>
        )}
        {failure && (
          <span role="alert" className={classes.refused}>
            {failure.message}
          </span>
        )}
      </div>
      {mine.length > 0 && (
        <ol className={classes.readings} aria-label={`Readings of ${name}`}>
          {mine.map((reading) => (
            <li key={reading.id}>
              <button
                type="button"
                data-aside={reading.set_aside !== null}
                title={reading.set_aside === null ? "Set aside" : "Count it after all"}
                onClick={() =>
                  aside.mutate({ id: reading.id, set_aside: reading.set_aside === null ? "set aside by hand" : null })
                }
              >
                {told(reading.figures)}
              </button>
            </li>
          ))}
        </ol>
      )}
      {summary && summary.count > 0 && (
        <div className={classes.line}>
          <strong>{says(summary)}</strong>
          <span>
            from {plain(summary.count)}
            {summary.aside > 0 && `, ${plain(summary.aside)} set aside`}
            {summary.simulated && ", simulated"}
          </span>
          {used(summary, counting) ? (
            <span>The fitting stands on them.</span>
          ) : (
            <Button size="xs" onClick={() => onUse(summary, counting)}>
              Use them
            </Button>
          )}
        </div>
      )}
    </section>
  );
}

/** The mean of one figure of a summary. */
export const meanOf = (summary: ReadSummary, key: string) => summary.figures.find((f) => f.key === key)?.mean;
