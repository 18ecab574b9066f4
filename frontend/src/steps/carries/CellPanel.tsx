import { Kbd, TextInput } from "@mantine/core";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import type { Carries, Cell, Strike, Units } from "../../api/client";
import { figureOf, TABLES } from "../../api/tables";
import { useUnits } from "../../app/context";
import { useRemembered } from "../../app/useRemembered";
import { newStrike } from "../../strikes/newStrike";
import { AskReason, QueueState, StrikeList } from "../../strikes/StrikeList";
import type { StrikeQueue } from "../../strikes/useStrikeQueue";
import { faultOf } from "../../units/limits";
import { fromDistance, metres, metresPerSecond, parseNumber, plain, showDistance, showSpeed } from "../../units/units";
import classes from "./Carries.module.css";
import { nameOf } from "./Finder";

const BALLS = TABLES.stations[0]?.wanted ?? 5;
const CARRY = figureOf(TABLES.strike, "carry_m");

interface Props {
  cell: Cell;
  strikes: Strike[];
  outliers: Carries["outliers"];
  queue: StrikeQueue;
  onMove: (rows: number, swings: number) => void;
  onFull: () => void;
}

/** One club and swing: the next ball is typed, Enter takes it; M sets the last aside with its reason, U takes it back. */
export function CellPanel({ cell, strikes, outliers, queue, onMove, onFull }: Props) {
  const units = useUnits();
  const field = useRef<HTMLInputElement>(null);
  const [text, setText] = useRemembered(`ball-${nameOf(cell)}-${units.distance}`, "");
  const [wrong, setWrong] = useState<string | null>(null);
  const [asking, setAsking] = useState<string | null>(null);
  const counting = strikes.filter((s) => s.set_aside === null && s.carry_m != null);
  const last = strikes.at(-1);
  // one that was taken out meanwhile is asked about no longer
  const asked = strikes.find((strike) => strike.id === asking);
  const carryOf = (strike: Strike) =>
    strike.carry_m == null ? "no carry" : showDistance(metres(strike.carry_m), units.distance, 1);
  useEffect(() => field.current?.focus(), []);

  const take = () => {
    const number = parseNumber(text);
    const fault = faultOf(text, CARRY, units);
    if (number === null || fault !== null) return setWrong(fault ?? "must be a number");
    const carry_m = fromDistance(number, units.distance);
    queue.take({ ...newStrike(cell.club, cell.loft_deg, cell.swing), carry_m });
    setText("");
    setWrong(null);
    if (counting.length + 1 === BALLS) onFull();
  };

  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    const key = event.key.toLowerCase();
    if (key === "enter") take();
    else if (key === "m" && last) setAsking(last.id);
    else if (key === "u" && last) queue.undo(last.id);
    else if (key === "arrowup") onMove(-1, 0);
    else if (key === "arrowdown") onMove(1, 0);
    else if (key === "arrowleft" && text === "") onMove(0, -1);
    else if (key === "arrowright" && text === "") onMove(0, 1);
    else if (key === "escape") {
      setText("");
      setWrong(null);
    } else return;
    event.preventDefault();
  };

  return (
    <section className={classes.panel} aria-label={nameOf(cell)}>
      <div className={classes.entry}>
        <h2>{nameOf(cell)}</h2>
        <TextInput
          ref={field}
          aria-label={`Carry of the next ball, ${nameOf(cell)}`}
          size="lg"
          classNames={{ input: classes.far }}
          value={text}
          inputMode="decimal"
          autoComplete="off"
          placeholder={`ball ${counting.length + 1}${counting.length < BALLS ? ` of ${BALLS}` : ""}`}
          rightSection={<span className={classes.farUnit}>{units.distance}</span>}
          rightSectionPointerEvents="none"
          error={wrong}
          onChange={(event) => {
            setText(event.currentTarget.value.replace(/[mu]/gi, ""));
            setWrong(null);
          }}
          onKeyDown={onKey}
        />
        {!asked ? (
          <p className={classes.keys}>
            <Kbd>Enter</Kbd> take <Kbd>M</Kbd> mishit <Kbd>U</Kbd> undo <Kbd>arrows</Kbd> cell
          </p>
        ) : (
          <AskReason
            figure={carryOf(asked)}
            onReason={(reason) => {
              queue.setAside(asked.id, reason);
              setAsking(null);
              field.current?.focus();
            }}
            onCancel={() => setAsking(null)}
          />
        )}
        <QueueState queue={queue} />
      </div>
      <StrikeList
        strikes={strikes}
        figure={carryOf}
        told={(strike) => outliers.find((o) => o.strike === strike.id)?.words ?? details(strike, units)}
        queue={queue}
        onAside={setAsking}
        empty={`No ball yet. ${cell.from_what.charAt(0).toUpperCase() + cell.from_what.slice(1)}.`}
      />
    </section>
  );
}

/** What else was measured of a strike. */
function details(strike: Strike, units: Units) {
  const found = [
    strike.spin_rpm != null ? `${plain(strike.spin_rpm)}\u00a0rpm` : "",
    strike.launch_deg != null ? `${plain(strike.launch_deg, 1)}° launch` : "",
    strike.ball_speed_mps != null ? `${showSpeed(metresPerSecond(strike.ball_speed_mps), units.speed)} ball` : "",
  ].filter(Boolean);
  return found.length > 0 ? found.join(", ") : strike.origin;
}
