import { Button } from "@mantine/core";
import type { Ground } from "../../api/client";
import { classOf, figureOf, type Surface, TABLES } from "../../api/tables";
import { useFault } from "../../app/context";
import { RememberedUnder, useRememberedOf } from "../../app/useRemembered";
import { Instrument, meanOf } from "../../devices/Instrument";
import type { InstrumentKind } from "../../devices/useDevices";
import { plain } from "../../units/units";
import { Choice } from "../parts/Choice";
import { FigureField } from "../parts/FigureField";
import { NameField } from "../parts/NameField";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import { SourceMark } from "../parts/SourceMark";
import classes from "./Ground.module.css";
import { ReadingsField } from "./ReadingsField";

type Source = Ground["turf"]["firmness_source"];
/** The fields of one kind of ground, by the names that its table gives. */
type SurfaceFigures = Record<string, number | string | number[]>;

interface Props {
  ground: Ground;
  path: string;
  onChange: (ground: Ground) => void;
  onRemove?: () => void;
  /** Other ground than that of the fitting: its instruments are not here. */
  away?: boolean;
  /** What the readings say, from the server. */
  says: Record<string, string> | undefined;
}

/** The newest readings of an instrument, as many as a ground holds. */
const values = (readings: readonly { figures: Record<string, number> }[], key: string) =>
  readings.slice(-TABLES.most.readings).map((reading) => reading.figures[key] ?? 0);

const same = (a: readonly number[], b: readonly number[]) => a.length === b.length && a.every((v, i) => v === b[i]);

/** Readings where there are some, classes where there are none. */
export function GroundForm({ ground, path, onChange, onRemove, says, away }: Props) {
  const nameFault = useFault(`${path}.name`);
  const remembered = useRememberedOf(ground.name);
  const whole = ground as unknown as Record<string, number> & Record<string, SurfaceFigures>;
  return (
    <RememberedUnder value={remembered}>
      <div className={`${parts.form} ${classes.form}`}>
        <fieldset className={parts.group}>
          <legend>{ground.name}</legend>
          <div className={parts.fields}>
            <NameField
              label="Name"
              value={ground.name}
              error={nameFault?.message}
              onChange={(name) => onChange({ ...ground, name })}
            />
            <NumberField
              label="Share of their golf"
              unit="%"
              width={130}
              places={0}
              path={`${path}.share`}
              value={100 * ground.share}
              onChange={(v) => v !== null && onChange({ ...ground, share: v / 100 })}
            />
            <Choice
              label="Greens"
              value={ground.green}
              options={TABLES.greens.map((green) => [green as Ground["green"], green] as const)}
              onChange={(green) => onChange({ ...ground, green })}
            />
            {TABLES.place.map((figure) => (
              <FigureField
                key={figure.key}
                figure={figure}
                path={`${path}.${figure.key}`}
                value={whole[figure.key] as number}
                onChange={(v) => onChange({ ...ground, [figure.key]: v })}
              />
            ))}
          </div>
          {onRemove && (
            <Button mt={12} variant="subtle" size="xs" color="rust" onClick={onRemove}>
              Remove this ground
            </Button>
          )}
        </fieldset>
        {TABLES.grounds.map((surface) => (
          <SurfaceFields
            key={surface.key}
            surface={surface}
            here={whole[surface.key] as SurfaceFigures}
            place={away ? null : ground.name}
            path={`${path}.${surface.key}`}
            says={says?.[surface.key] ?? ""}
            onChange={(next) => onChange({ ...ground, [surface.key]: next })}
          />
        ))}
      </div>
    </RememberedUnder>
  );
}

interface SurfaceProps {
  surface: Surface;
  here: SurfaceFigures;
  /** The ground that the instrument reads; null where none is at hand. */
  place: string | null;
  path: string;
  says: string;
  onChange: (here: SurfaceFigures) => void;
}

/** One kind of the ground: its class, the reading and its single readings, its other figures, and its instrument. */
function SurfaceFields({ surface, here, place, path, says, onChange }: SurfaceProps) {
  const { reading, readings, source, picked, instrument, instrument_figure } = surface;
  const record = figureOf(surface.figures, reading);
  const value = here[reading] as number;
  const single = here[readings] as number[];
  const set = (change: SurfaceFigures) => onChange({ ...here, ...change });
  const shown = (figure: number) => `${plain(figure, record.places)}\u00a0${record.unit}`;
  const others = surface.figures.filter(
    ({ key, where }) => key !== reading && where === "first" && key !== picked?.figure,
  );
  return (
    <fieldset className={parts.group}>
      <legend>
        {surface.words}{" "}
        <SourceMark
          source={here[source] as Source}
          label={`${surface.words}, ${record.words.toLowerCase()}`}
          onChange={(s) => set({ [source]: s })}
        />
      </legend>
      <div className={parts.fields}>
        <Choice
          label="Class"
          value={classOf(surface, value)}
          options={surface.classes.map(({ key, words }) => [key, words] as const)}
          onChange={(key) => {
            const usual = surface.classes.find((one) => one.key === key)?.usual;
            if (usual !== undefined) set({ [reading]: usual, [source]: "assumed", [readings]: [] });
          }}
        />
        <FigureField
          figure={record}
          path={`${path}.${reading}`}
          value={value}
          onChange={(v) => set({ [reading]: v, [source]: "typed", [readings]: [] })}
        />
        <ReadingsField
          label={surface.readings_words}
          path={`${path}.${readings}`}
          values={single}
          says={says}
          places={record.places}
          onChange={(next) => set({ [readings]: next, [source]: "measured" })}
        />
        {picked && (
          <Choice
            label={picked.words}
            value={here[picked.field] as string}
            options={Object.keys(picked.values).map((word) => [word, word.replace("_", " ")] as const)}
            onChange={(word) => set({ [picked.field]: word })}
          />
        )}
        {others.map((figure) => (
          <FigureField
            key={figure.key}
            figure={figure}
            path={`${path}.${figure.key}`}
            value={here[figure.key] as number}
            onChange={(v) => set({ [figure.key]: v })}
          />
        ))}
      </div>
      {instrument && place !== null && (
        <Instrument
          kind={instrument as InstrumentKind}
          target={place}
          name={place}
          told={(f) => shown(f[instrument_figure] ?? 0)}
          says={(s) =>
            `${plain(meanOf(s, instrument_figure) ?? 0, record.places)} ± ${shown(s.figures[0]?.spread ?? 0)}: ${s.words}`
          }
          used={(_, found) => here[source] === "measured" && same(single, values(found, instrument_figure))}
          onUse={(_, found) => set({ [readings]: values(found, instrument_figure), [source]: "measured" })}
        />
      )}
    </fieldset>
  );
}
