import { NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Build } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useUnits } from "../../app/context";
import { Instrument, meanOf } from "../../devices/Instrument";
import { GroundSole } from "../../pictures/GroundSole/GroundSole";
import { showMoment } from "../../units/days";
import { metres, parseNumber, plain, showDistance, trimmed } from "../../units/units";
import { PlainNumber } from "../parts/PlainNumber";
import parts from "../parts/parts.module.css";
import { Wide } from "../parts/Wide";
import classes from "./Build.module.css";
import type { Tick } from "./useBuild";

type Club = Build["clubs"][number];
type Wish = Club["wish"];
type Limit = { low: number; high: number };

const LIMITS = TABLES.build as Record<string, Limit>;
const limit = (key: string) => ({ ...(LIMITS[key] ?? { low: 0, high: 0 }), places: 2 });
const AS_IT_IS = "as it is";

interface Props {
  place: number;
  club: Club;
  /** What is wished by now: the sheet may be of a moment before. */
  wish: Wish;
  sheet: Build;
  /** What of its work is done; null while it is not at the bench. */
  ticks: Tick[] | null;
  onTick: (operation: number, done: boolean) => void;
  onChange: (changes: Partial<Wish>) => void;
}

/** One club: before and after, what is wished, what the bench does in its order. */
export function ClubSheet({ place, club, wish, sheet, ticks, onTick, onChange }: Props) {
  const units = useUnits();
  const { before, after, built } = club;
  const grind = (changes: Partial<Wish["grind"]>) => onChange({ grind: { ...wish.grind, ...changes } });
  // a club is put together with shaft, grip and length, or keeps all three
  const assembled = (changes: Partial<Wish>) =>
    onChange({
      shaft: wish.shaft ?? club.usual.shaft,
      grip: wish.grip ?? club.usual.grip,
      length_in: wish.length_in ?? club.usual.length_in,
      ...changes,
    });
  return (
    <section className={classes.club} aria-label={club.name}>
      <h2>
        {club.name}: <span className={classes.action}>{ACTIONS[club.action]}</span>
      </h2>
      <div className={classes.pair}>
        <GroundSole
          before={before.outline_mm}
          after={after.outline_mm}
          words={`${club.name} before and after: bounce ${trimmed(before.bounce_deg, 2)} and ${trimmed(after.bounce_deg, 2)} degrees`}
        />
        <Wide label={`${club.name}, before and after`}>
          <table className={parts.table} aria-label={`${club.name}, before and after`}>
            <thead>
              <tr>
                <th>
                  <span className={classes.dashed}>before</span> and after
                </th>
                <th className={parts.num}>Loft °</th>
                <th className={parts.num}>Bounce °</th>
                <th className={parts.num}>Lie °</th>
                <th className={parts.num}>Edge mm</th>
                <th className={parts.num}>Mass g</th>
              </tr>
            </thead>
            <tbody>
              {[before, after].map((state, i) => (
                <tr key={i === 0 ? "before" : "after"}>
                  <td>{i === 0 ? "as it comes" : "as built"}</td>
                  <td className={parts.num}>{trimmed(state.loft_deg, 2)}</td>
                  <td className={parts.num}>{trimmed(state.bounce_deg, 2)}</td>
                  <td className={parts.num}>{trimmed(state.lie_deg, 2)}</td>
                  <td className={parts.num}>{plain(state.edge_height_mm, 1)}</td>
                  <td className={parts.num}>{plain(state.mass_g, 1)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      </div>
      <div className={parts.fields}>
        <PlainNumber
          label="Loft"
          unit="°"
          value={wish.loft_deg}
          {...limit("loft_deg")}
          onChange={(loft_deg) => onChange({ loft_deg })}
        />
        <PlainNumber
          label="Lie"
          unit="°"
          value={wish.lie_deg ?? before.lie_deg}
          {...limit("lie_deg")}
          onChange={(lie_deg) => onChange({ lie_deg })}
        />
        <Reading
          label="Board mark, toe +"
          unit="mm"
          value={wish.lie_mark_mm ?? null}
          bound={limit("lie_mark_mm")}
          onChange={(lie_mark_mm) => onChange({ lie_mark_mm })}
        />
        <BentBefore value={wish.bent_before_deg} onChange={(bent_before_deg) => onChange({ bent_before_deg })} />
        <PlainNumber
          label="Heel off"
          unit="mm"
          value={wish.grind.heel_mm}
          {...limit("heel_mm")}
          onChange={(heel_mm) => grind({ heel_mm })}
        />
        <PlainNumber
          label="Toe off"
          unit="mm"
          value={wish.grind.toe_mm}
          {...limit("toe_mm")}
          onChange={(toe_mm) => grind({ toe_mm })}
        />
        <PlainNumber
          label="Back relief, share"
          unit="%"
          value={100 * wish.grind.back_fraction}
          low={100 * limit("back_fraction").low}
          high={100 * limit("back_fraction").high}
          onChange={(percent) => grind({ back_fraction: percent / 100 })}
        />
        <PlainNumber
          label="Back relief, angle"
          unit="°"
          value={wish.grind.back_deg}
          {...limit("back_deg")}
          onChange={(back_deg) => grind({ back_deg })}
        />
        <PlainNumber
          label="Front bevel, length"
          unit="mm"
          value={wish.grind.bevel_mm}
          {...limit("bevel_mm")}
          onChange={(bevel_mm) => grind({ bevel_mm })}
        />
        <PlainNumber
          label="Front bevel, angle"
          unit="°"
          value={wish.grind.bevel_deg}
          {...limit("bevel_deg")}
          onChange={(bevel_deg) => grind({ bevel_deg })}
        />
      </div>
      <div className={parts.fields}>
        <NativeSelect
          label="Shaft"
          value={wish.shaft ?? ""}
          data={[
            { value: "", label: AS_IT_IS },
            ...sheet.shafts.map((s) => ({ value: s.code, label: `${s.name}, ${plain(s.mass_g)} g, ${s.stock} here` })),
          ]}
          onChange={(event) => {
            const shaft = event.currentTarget.value;
            if (shaft) assembled({ shaft: shaft as Wish["shaft"] });
            else onChange({ shaft: null, grip: null, length_in: null, swing_weight: null });
          }}
        />
        {wish.shaft && wish.length_in !== null && wish.length_in !== undefined && (
          <>
            <NativeSelect
              label="Grip"
              value={wish.grip ?? ""}
              data={sheet.grips.map((g) => ({
                value: g.code,
                label: `${g.name}, ${plain(g.mass_g)} g, ${g.stock} here`,
              }))}
              onChange={(event) => assembled({ grip: event.currentTarget.value as Wish["grip"] })}
            />
            <PlainNumber
              label="Length"
              unit="in"
              value={wish.length_in}
              {...limit("length_in")}
              onChange={(length_in) => assembled({ length_in })}
            />
            <SwingWeight
              label="Wished swing weight"
              empty="as it comes"
              value={wish.swing_weight ?? null}
              onChange={(swing_weight) => onChange({ swing_weight })}
            />
          </>
        )}
      </div>
      <p className={classes.note}>
        {built && (
          <>
            <strong>{built.swing_weight}</strong> at {trimmed(built.length_in, 2)} in, {plain(built.mass_g)} g, balance{" "}
            {plain(built.balance_in, 1)} in from the butt
            {club.unmatched && ": more than a point off the others"}.{" "}
          </>
        )}
        {club.lie_asked_deg !== null && `The mark asks for a lie of ${trimmed(club.lie_asked_deg, 2)}°. `}
        {club.lie_by_deg !== 0 &&
          `Lie ${trimmed(Math.abs(club.lie_by_deg), 2)}° ${club.lie_by_deg > 0 ? "upright" : "flat"} moves the start ${showDistance(metres(Math.abs(club.start_m)), units.distance, 1)} ${club.start_m < 0 ? "left" : "right"} at ${showDistance(metres(sheet.seen_at_m), units.distance)}. `}
        {club.removed_g > 0 &&
          `${plain(club.removed_g, 1)} g ground off, ${plain(club.deepest_mm, 1)} mm at the deepest. `}
        {club.worth_strokes_round !== null &&
          `The work on the head is worth ${plain(club.worth_strokes_round, 2)} strokes a round. `}
        {trimmed(club.bend_left_deg, 2)}° of bending is left afterwards.
        {club.on_shelf !== null &&
          (sheet.order?.heads.includes(club.name)
            ? " The head is set aside for this set."
            : ` ${club.on_shelf} on the shelf.`)}
        {club.weeks > 0 && ` Ready in ${club.weeks} ${club.weeks === 1 ? "week" : "weeks"}.`}
      </p>
      {club.notes.map((note) => (
        <p key={note} className={classes.note} data-changed>
          {note}
        </p>
      ))}
      <div className={parts.fields} role="group" aria-label={`${club.name} as built`}>
        <Reading
          label="Read: loft"
          unit="°"
          value={wish.read.loft_deg ?? null}
          bound={limit("loft_deg")}
          onChange={(loft_deg) => onChange({ read: { ...wish.read, loft_deg, typed: true } })}
        />
        <Reading
          label="Read: lie"
          unit="°"
          value={wish.read.lie_deg ?? null}
          bound={limit("lie_deg")}
          onChange={(lie_deg) => onChange({ read: { ...wish.read, lie_deg, typed: true } })}
        />
        {built && (
          <SwingWeight
            label="Read: swing weight"
            empty="not read"
            value={wish.read.swing_weight ?? null}
            onChange={(swing_weight) => onChange({ read: { ...wish.read, swing_weight } })}
          />
        )}
      </div>
      {sheet.own && (
        <Instrument
          kind="gauge"
          target={`built:${place}`}
          name={`the built ${club.name}`}
          told={(figures) => `${plain(figures.loft_deg ?? 0, 1)}° · lie ${plain(figures.lie_deg ?? 0, 1)}°`}
          says={(summary) =>
            `${trimmed(meanOf(summary, "loft_deg") ?? 0, 2)}° loft, lie ${trimmed(meanOf(summary, "lie_deg") ?? 0, 2)}°`
          }
          used={(summary) =>
            !wish.read.typed &&
            wish.read.loft_deg === hundredth(meanOf(summary, "loft_deg")) &&
            wish.read.lie_deg === hundredth(meanOf(summary, "lie_deg"))
          }
          onUse={(summary) =>
            onChange({
              read: {
                ...wish.read,
                loft_deg: hundredth(meanOf(summary, "loft_deg")),
                lie_deg: hundredth(meanOf(summary, "lie_deg")),
                typed: false,
              },
            })
          }
        />
      )}
      {club.as_built.map((one) => (
        <p key={one.key} className={classes.note} data-off={one.over > 0}>
          {READ[one.key]} {trimmed(one.read - one.wanted, 2)} off the sheet
          {one.over > 0 ? `, ${trimmed(one.over, 2)} outside its tolerance` : ", within its tolerance"}
        </p>
      ))}
      <ol className={classes.work} aria-label={`${club.name}, order of work`}>
        {club.operations.map((one, n) => (
          <li key={`${one.key}-${n}`}>
            {ticks ? (
              <label className={classes.tick}>
                <input
                  type="checkbox"
                  checked={ticks.some((tick) => tick.operation === n)}
                  onChange={(event) => onTick(n, event.currentTarget.checked)}
                />
                {one.words}
              </label>
            ) : (
              one.words
            )}
            {one.wanted !== null && one.tolerance !== null && (
              <span className={classes.figure}>
                {" "}
                {one.unit === "points" ? "" : trimmed(one.wanted, 2)} ± {trimmed(one.tolerance, 2)}
                {one.unit === "degrees" ? "°" : one.unit === "points" ? " point" : ` ${one.unit}`}
              </span>
            )}
            {ticks && <TickedBy tick={ticks.find((tick) => tick.operation === n)} />}
            {one.caution && <small>{one.caution}</small>}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** Who did a piece of work, and when; nothing until the server has it. */
function TickedBy({ tick }: { tick: Tick | undefined }) {
  if (!tick?.at) return null;
  return (
    <small className={classes.by}>
      {tick.by}, {showMoment(tick.at)}
    </small>
  );
}

const hundredth = (value: number | undefined) => (value === undefined ? null : Math.round(100 * value) / 100);

/** A figure with the hundredths that it has. */

const READ: Record<Club["as_built"][number]["key"], string> = {
  loft_deg: "Loft °:",
  lie_deg: "Lie °:",
  swing_weight_points: "Swing weight, points:",
};

const ACTIONS: Record<Club["action"], string> = { keep: "keep", bend: "bend", grind: "grind", replace: "new" };

/** Bends of the head's life before, as numbers with signs between spaces. */
function BentBefore({ value, onChange }: { value: readonly number[]; onChange: (value: number[]) => void }) {
  const [text, setText] = useState<string | null>(null);
  const numbers = (typed: string) =>
    typed
      .split(/[\s;]+/)
      .filter(Boolean)
      .map((one) => parseNumber(one) ?? Number.NaN);
  const shown = text ?? value.map((one) => trimmed(one, 2)).join(" ");
  const { low, high } = limit("bent_deg");
  const wrong = numbers(shown).some((one) => Number.isNaN(one) || one < low || one > high);
  return (
    <TextInput
      label="Bent before"
      value={shown}
      style={{ width: 130 }}
      rightSection={<span className={parts.unit}>°</span>}
      error={wrong ? "as 1 −0.5" : undefined}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={() => {
        if (wrong || text === null) return;
        onChange(numbers(text));
        setText(null);
      }}
    />
  );
}

/** A figure that was read, or none. */
function Reading({
  label,
  unit,
  value,
  bound,
  onChange,
}: {
  label: string;
  unit: string;
  value: number | null;
  bound: Limit;
  onChange: (value: number | null) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? (value === null ? "" : trimmed(value, 2));
  const number = parseNumber(shown);
  const wrong = shown.trim() !== "" && (number === null || number < bound.low || number > bound.high);
  return (
    <TextInput
      label={label}
      value={shown}
      placeholder="not read"
      inputMode="decimal"
      style={{ width: 130 }}
      rightSection={<span className={parts.unit}>{unit}</span>}
      error={wrong ? `${plain(bound.low)} to ${plain(bound.high)}` : undefined}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={() => {
        if (wrong || text === null) return;
        onChange(number);
        setText(null);
      }}
    />
  );
}

/** A swing weight that is wished or was read, or none. */
function SwingWeight({
  label,
  empty,
  value,
  onChange,
}: {
  label: string;
  empty: string;
  value: string | null;
  onChange: (value: string | null) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? value ?? "";
  const typed = shown.trim().toUpperCase().replace(",", ".");
  const wrong = typed !== "" && !/^[A-G]\d(\.\d)?$/.test(typed);
  return (
    <TextInput
      label={label}
      value={shown}
      placeholder={empty}
      style={{ width: 150 }}
      error={wrong ? "as D4" : undefined}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={() => {
        if (wrong || text === null) return;
        onChange(typed === "" ? null : typed);
        setText(null);
      }}
    />
  );
}
