import { SegmentedControl, TextInput } from "@mantine/core";
import { useEffect, useState } from "react";
import type { Carries, CarriesAsked, Cell } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useUnits } from "../../app/context";
import { cellKey } from "../../pictures/CarryLadder/RungMark";
import { between } from "../../units/limits";
import {
  fromDistance,
  inDistance,
  metres,
  parseNumber,
  plain,
  showDistance,
  showPercent,
  trimmed,
} from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import classes from "./Carries.module.css";

interface Props {
  carries: Carries;
  asked: CarriesAsked;
  onChange: (changes: Partial<CarriesAsked>) => void;
  onFocus: (key: string | null) => void;
}

const { low: LEAST, high: MOST } = TABLES.finder_m;

/** How far is it: the shots for a distance, the first and the one instead, with what speaks for each. */
export function Finder({ carries, asked, onChange, onFocus }: Props) {
  const units = useUnits();
  const [text, setText] = useState<string | null>(null);
  const distance = asked.distance_m ?? null;
  const shown = text ?? (distance === null ? "" : trimmed(inDistance(metres(distance), units.distance)));
  const number = parseNumber(shown);
  const inMetres = number === null ? null : fromDistance(number, units.distance);
  const wrong = shown.trim() !== "" && (inMetres === null || inMetres < LEAST || inMetres > MOST);
  // a press on the ruler asks for another distance: what was typed makes way
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a new distance clears the field
  useEffect(() => setText(null), [distance]);
  const cellOf = (shot: Parameters<typeof cellKey>[0]) => carries.cells.find((c) => cellKey(c) === cellKey(shot));
  const best = carries.found.flatMap((shot) => {
    const cell = cellOf(shot);
    return cell ? [{ shot, cell }] : [];
  });
  return (
    <section className={classes.finder} aria-label="Distance finder">
      <div className={classes.ask}>
        <TextInput
          label="How far is it?"
          size="lg"
          classNames={{ input: classes.far }}
          value={shown}
          placeholder="68"
          inputMode="decimal"
          autoComplete="off"
          rightSection={<span className={classes.farUnit}>{units.distance}</span>}
          rightSectionPointerEvents="none"
          error={
            wrong
              ? between(
                  inDistance(metres(LEAST), units.distance),
                  inDistance(metres(MOST), units.distance),
                  units.distance,
                )
              : undefined
          }
          onChange={(event) => {
            const next = event.currentTarget.value;
            setText(next);
            const typed = parseNumber(next);
            const there = typed === null ? null : fromDistance(typed, units.distance);
            if (next.trim() === "") onChange({ distance_m: null });
            else if (there !== null && there >= LEAST && there <= MOST) onChange({ distance_m: there });
          }}
        />
        <span className={parts.label}>Where the flag stands</span>
        <SegmentedControl
          aria-label="Where the flag stands"
          size="xs"
          fullWidth
          value={asked.pin}
          data={[
            { value: "front", label: "front" },
            { value: "middle", label: "middle" },
            { value: "back", label: "back" },
          ]}
          onChange={(pin) => onChange({ pin: pin as CarriesAsked["pin"] })}
        />
      </div>
      {best.slice(0, 2).map(({ shot, cell }, i) => (
        // biome-ignore lint/a11y/noStaticElementInteractions: the table below names the same shots
        <div
          key={cellKey(shot)}
          className={classes.shot}
          onMouseEnter={() => onFocus(cellKey(shot))}
          onMouseLeave={() => onFocus(null)}
        >
          <span className={parts.unit}>{i === 0 ? "first" : "instead"}</span>
          <p className={classes.shotName}>
            {nameOf(cell)} <span>{carriesWords(cell, units.distance)}</span>
          </p>
          <p className={classes.reasons}>
            {sentence(i === 0 ? shot.reasons : `${shot.against_first}; ${shot.reasons}`)}
          </p>
        </div>
      ))}
      {best.length === 0 && (
        <p className={classes.teach}>
          Type a distance, or press the ruler: the shots for it are ranked by how near they leave the ball, what the
          wind does to them, and where the flag stands.
        </p>
      )}
      {best.length > 2 && (
        <div className={classes.others}>
          <CopyTable caption="Shots for this distance">
            <thead>
              <tr>
                <th>Shot</th>
                <th className={parts.num}>Carry {units.distance}</th>
                <th className={parts.num}>Stops at {units.distance}</th>
                <th className={parts.num}>Mean miss {units.distance}</th>
                <th className={parts.num}>On the green</th>
                <th>Against the first</th>
              </tr>
            </thead>
            <tbody>
              {best.map(({ shot, cell }) => (
                <tr key={cellKey(shot)}>
                  <td>{nameOf(cell)}</td>
                  <td className={parts.num}>{plain(inDistance(metres(cell.carry_m), units.distance), 1)}</td>
                  <td className={parts.num}>{plain(inDistance(metres(cell.total_m), units.distance), 1)}</td>
                  <td className={parts.num}>{plain(inDistance(metres(shot.miss_m), units.distance), 1)}</td>
                  <td className={parts.num}>{showPercent(shot.on_green)}</td>
                  <td>{shot.against_first}</td>
                </tr>
              ))}
            </tbody>
          </CopyTable>
        </div>
      )}
    </section>
  );
}

export function nameOf(cell: Cell) {
  return `${cell.name}, ${cell.swing_name}`;
}

/** Mean carry, and how far one ball strays. */
export function carriesWords(cell: Cell, unit: "m" | "yd") {
  return `${plain(inDistance(metres(cell.carry_m), unit), 1)} ± ${showDistance(metres(cell.spread_m), unit, 1)}`;
}

function sentence(text: string) {
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
}
