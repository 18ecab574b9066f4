import type { Recommendation, Schemas } from "../../api/client";
import { useStore } from "../../app/context";
import { showPercent } from "../../units/units";
import { NumberField } from "../parts/NumberField";
import parts from "../parts/parts.module.css";
import { SourceMark } from "../parts/SourceMark";
import classes from "./Lofts.module.css";

type Economy = Required<Schemas["EconomyDocument"]>;
const EMPTY: Economy = {
  shots_a_round: null,
  worth_changing: null,
  slot: null,
  practice: null,
  table_scale: null,
  claims_sd: null,
};

const FIELDS: {
  key: keyof Economy;
  label: string;
  unit: string;
  shown: keyof Recommendation["economy"];
  note: string;
}[] = [
  {
    key: "shots_a_round",
    label: "Wedge shots a round",
    unit: "shots",
    shown: "shots_a_round",
    note: "empty: the usual for this handicap",
  },
  {
    key: "worth_changing",
    label: "A head must win",
    unit: "a round",
    shown: "worth_changing",
    note: "empty: the usual",
  },
  {
    key: "slot",
    label: "A place in the bag is worth",
    unit: "a round",
    shown: "slot",
    note: "empty: the usual; counts beyond today’s wedges",
  },
  {
    key: "practice",
    label: "Practice, for 4° off the band",
    unit: "a shot",
    shown: "practice",
    note: "empty: the usual",
  },
  {
    key: "table_scale",
    label: "Handicap in the strokes table",
    unit: "of it",
    shown: "table_scale",
    note: "empty: all of it; the log may say another",
  },
  {
    key: "claims_sd",
    label: "How far claims come true",
    unit: "",
    shown: "claims_sd",
    note: "empty: the usual; widens what is stated",
  },
];

/** What the doubt of claims says, in a fitter's words. */
const cameTo = ({ claims_low, claims_high }: Recommendation["economy"]) =>
  typeof claims_low === "number" && typeof claims_high === "number"
    ? `: 8 of 10 come to ${showPercent(claims_low)} to ${showPercent(claims_high)} of what was claimed`
    : "";

/** What a round and a change are worth: usual figures until they are typed; an empty field brings the usual one back. */
export function Worth({ economy }: { economy: Recommendation["economy"] }) {
  const { draft, edit } = useStore();
  const typed = { ...EMPTY, ...draft.choices.economy };
  return (
    <section className={classes.worth} aria-label="What a head must win">
      {FIELDS.map(({ key, label, unit, shown, note }) => (
        <div key={key}>
          <NumberField
            label={label}
            unit={unit}
            width={190}
            places={2}
            optional
            placeholder={`${economy[shown]}`}
            path={`choices.economy.${key}`}
            value={typed[key]}
            onChange={(value) => edit("choices", { ...draft.choices, economy: { ...typed, [key]: value } })}
          />
          <span className={parts.unit}>
            <SourceMark source={typed[key] === null ? "assumed" : "typed"} label={label} /> {note}
            {key === "claims_sd" && cameTo(economy)}
          </span>
        </div>
      ))}
    </section>
  );
}
