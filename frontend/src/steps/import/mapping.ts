import type { Schemas } from "../../api/client";
import type { Layout } from "../parts/LayoutBar";

export type Look = Schemas["LookOut"];
export type Mapping = Schemas["MappingDocument"];
export type ImportRun = Schemas["ImportOut"];

export interface Use {
  field: string;
  unit: string | null;
}

/** A mapping while it is being made: what each column of the file is, and what each word means. */
export interface Draft {
  layout: Layout;
  uses: Record<number, Use>;
  decimal: "point" | "comma";
  club: string | null;
  swing: string;
  clubs: Record<string, string | null>;
  swings: Record<string, string | null>;
  fill_down: boolean;
}

/** What the server guesses has the shape of a mapping, with gaps. */
type Guess = Pick<Mapping, "columns"> & Partial<Mapping>;

/** The server's mapping or guess as a draft. */
export function draftOf(look: Look, layout: Layout): Draft {
  const from: Guess = look.mapping ?? (look.guess as unknown as Guess);
  return {
    layout,
    uses: Object.fromEntries(from.columns.map((c) => [c.column, { field: c.field, unit: c.unit ?? null }])),
    decimal: from.decimal ?? "point",
    club: from.club ?? null,
    swing: from.swing ?? "full",
    clubs: from.clubs ?? {},
    swings: from.swings ?? {},
    fill_down: from.fill_down ?? false,
  };
}

/** The draft as the server takes it; it says what is still missing. */
export function mappingOf(draft: Draft): Mapping {
  return {
    layout: draft.layout,
    columns: Object.entries(draft.uses)
      .filter(([, use]) => use.field !== "")
      .map(([column, use]) => ({ column: Number(column), field: use.field, unit: use.unit }) as Mapping["columns"][0]),
    decimal: draft.decimal,
    club: draft.club,
    swing: draft.swing,
    clubs: draft.clubs,
    swings: draft.swings,
    fill_down: draft.fill_down,
  };
}

/** Another field for a column: its only or first unit is taken, and whoever held the field before gives it up. */
export function withField(draft: Draft, column: number, field: string, fields: Look["fields"]): Draft {
  const units = fields.find((f) => f.field === field)?.units ?? [];
  const others = Object.entries(draft.uses).filter(([at, use]) => Number(at) !== column && use.field !== field);
  const uses = Object.fromEntries(others.map(([at, use]) => [Number(at), use]));
  if (field !== "") uses[column] = { field, unit: units.length === 1 ? (units[0] ?? null) : null };
  return { ...draft, uses };
}

/** Words of the file that mean nothing yet. */
export function unmapped(words: readonly string[], known: Record<string, string | null>) {
  return words.filter((word) => !(word in known));
}

/** The column whose mapping a fault is about. */
export function columnOfFault(field: string, mapping: Mapping): number | null {
  const found = /columns\.(\d+)/.exec(field);
  return found ? (mapping.columns[Number(found[1])]?.column ?? null) : null;
}
