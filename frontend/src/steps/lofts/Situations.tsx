import { Button, NativeSelect, VisuallyHidden } from "@mantine/core";
import type { Recommendation, Scenario, Schemas } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useFault, useStore, useUnits } from "../../app/context";
import { fromDistance, inDistance, metres } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import { SourceMark } from "../parts/SourceMark";

type Layout = Schemas["HoleDocument"];

/** Where the hole is for each short shot: typed ones beside the usual ones, which come back at a press. */
export function Situations({ result }: { result: Recommendation }) {
  const shots = new Map(result.scenarios.filter((s) => s.kind !== "full").map((s) => [s.shot, s] as const));
  return (
    <CopyTable caption="Where the hole is">
      <thead>
        <tr>
          <th>Shot</th>
          <th>To the hole</th>
          <th>Room in front of it</th>
          <th>Green behind</th>
          <th>Short lies</th>
          <th>From what</th>
          <th>
            <VisuallyHidden>Change</VisuallyHidden>
          </th>
        </tr>
      </thead>
      <tbody>
        {[...shots.values()].map((scenario) => (
          <Row key={scenario.shot} scenario={scenario} />
        ))}
      </tbody>
    </CopyTable>
  );
}

const LENGTHS = [
  ["hole_m", "to the hole"],
  ["room_m", "room"],
  ["behind_m", "behind"],
] as const;

function Row({ scenario }: { scenario: Scenario }) {
  const { draft, edit } = useStore();
  const units = useUnits();
  const layouts = draft.choices.layouts;
  const index = layouts.findIndex((layout) => layout.shot === scenario.shot);
  const fault = useFault(`choices.layouts.${index}`);
  const usual = {
    shot: scenario.shot,
    hole_m: scenario.hole_m,
    room_m: scenario.room_m,
    behind_m: scenario.behind_m,
    short: scenario.short,
  } as Layout;
  const here = layouts[index] ?? usual;
  const set = (next: Layout | null) => {
    const others = layouts.filter((layout) => layout.shot !== scenario.shot);
    edit("choices", { ...draft.choices, layouts: next ? [...others, next] : others });
  };
  return (
    <tr data-on={index >= 0}>
      <td>{scenario.shot_name}</td>
      {LENGTHS.map(([key, name]) => (
        <td key={key}>
          <NumberField
            label={`${scenario.shot_name}, ${name}`}
            hideLabel
            unit={units.distance}
            width={92}
            path={`choices.layouts.${index}.${key}`}
            value={inDistance(metres(here[key]), units.distance)}
            onChange={(value) => value !== null && set({ ...here, [key]: fromDistance(value, units.distance) })}
          />
        </td>
      ))}
      <td>
        <NativeSelect
          miw={96}
          aria-label={`${scenario.shot_name}, short lies`}
          value={here.short}
          data={TABLES.shorts}
          onChange={(event) => set({ ...here, short: event.currentTarget.value as Layout["short"] })}
        />
      </td>
      <td>
        <SourceMark source={index >= 0 ? "typed" : "assumed"} label={scenario.shot_name} />
        {fault && <span className={parts.error}> {fault.message}</span>}
      </td>
      <td>
        <Button size="compact-sm" variant="default" disabled={index < 0} onClick={() => set(null)}>
          Usual
        </Button>
      </td>
    </tr>
  );
}
