import { Button, Popover, SegmentedControl } from "@mantine/core";
import type { CarriesAsked } from "../../api/client";
import { namedIn, optionsOf, TABLES } from "../../api/tables";
import { useUnits } from "../../app/context";
import {
  fromDistance,
  fromSpeed,
  inDistance,
  inSpeed,
  metres,
  metresPerSecond,
  plain,
  SPEED_LABEL,
} from "../../units/units";
import { PlainNumber } from "../parts/PlainNumber";
import classes from "./Carries.module.css";

interface Props {
  asked: CarriesAsked;
  onChange: (changes: Partial<CarriesAsked>) => void;
}

const { air: AIR, into_mps: INTO } = TABLES;

/** Wind, green, lie and air, all in one line; any other figure behind the last button. */
export function Conditions({ asked, onChange }: Props) {
  const units = useUnits();
  const speed = (value: number) =>
    `${plain(inSpeed(metresPerSecond(value), units.speed))}\u00a0${SPEED_LABEL[units.speed]}`;
  const preset = asked.wind_cross_mps === 0 && [-INTO, 0, INTO].includes(asked.wind_head_mps);
  const wind = preset ? String(asked.wind_head_mps) : "other";
  return (
    <>
      <SegmentedControl
        aria-label="Wind"
        size="xs"
        value={wind}
        data={[
          { value: "0", label: "still" },
          { value: String(INTO), label: `${speed(INTO)} into` },
          { value: String(-INTO), label: "helping" },
          ...(preset ? [] : [{ value: "other", label: windWords(asked, speed) }]),
        ]}
        onChange={(value) => value !== "other" && onChange({ wind_head_mps: Number(value), wind_cross_mps: 0 })}
      />
      <SegmentedControl
        aria-label="Green"
        size="xs"
        value={asked.green}
        data={TABLES.greens.map((value, place) => ({ value, label: place === 0 ? `${value} green` : value }))}
        onChange={(green) => onChange({ green: green as CarriesAsked["green"] })}
      />
      <Popover position="bottom-end" withinPortal>
        <Popover.Target>
          <Button size="xs" variant="default">
            {namedIn(TABLES.carry_lies, asked.lie)} lie, {plain(asked.temperature_c)}&nbsp;°C
          </Button>
        </Popover.Target>
        <Popover.Dropdown className={classes.air}>
          <SegmentedControl
            aria-label="Lie"
            size="xs"
            value={asked.lie}
            data={optionsOf(TABLES.carry_lies)}
            onChange={(lie) => onChange({ lie: lie as CarriesAsked["lie"] })}
          />
          <div className={classes.airFields}>
            <PlainNumber
              label="Wind against"
              unit={SPEED_LABEL[units.speed]}
              value={inSpeed(metresPerSecond(asked.wind_head_mps), units.speed)}
              low={inSpeed(metresPerSecond(AIR.wind_head_mps.low), units.speed)}
              high={inSpeed(metresPerSecond(AIR.wind_head_mps.high), units.speed)}
              onChange={(value) => onChange({ wind_head_mps: fromSpeed(value, units.speed) })}
            />
            <PlainNumber
              label="Wind to the right"
              unit={SPEED_LABEL[units.speed]}
              value={inSpeed(metresPerSecond(asked.wind_cross_mps), units.speed)}
              low={inSpeed(metresPerSecond(AIR.wind_cross_mps.low), units.speed)}
              high={inSpeed(metresPerSecond(AIR.wind_cross_mps.high), units.speed)}
              onChange={(value) => onChange({ wind_cross_mps: fromSpeed(value, units.speed) })}
            />
            <PlainNumber
              label="Temperature"
              unit="°C"
              value={asked.temperature_c}
              {...AIR.temperature_c}
              onChange={(temperature_c) => onChange({ temperature_c })}
            />
            <PlainNumber
              label="Altitude"
              unit={units.distance}
              value={inDistance(metres(asked.altitude_m), units.distance)}
              low={inDistance(metres(AIR.altitude_m.low), units.distance)}
              high={inDistance(metres(AIR.altitude_m.high), units.distance)}
              onChange={(value) => onChange({ altitude_m: fromDistance(value, units.distance) })}
            />
          </div>
        </Popover.Dropdown>
      </Popover>
    </>
  );
}

function windWords(asked: CarriesAsked, speed: (value: number) => string) {
  const head = asked.wind_head_mps;
  const cross = asked.wind_cross_mps;
  const parts = [
    head > 0 ? `${speed(head)} into` : head < 0 ? `${speed(-head)} helping` : "",
    cross > 0 ? `${speed(cross)} to the right` : cross < 0 ? `${speed(-cross)} to the left` : "",
  ];
  return parts.filter(Boolean).join(", ");
}
