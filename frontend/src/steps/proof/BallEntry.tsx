import { Button } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { v4 as newId } from "uuid";
import type { Proof, ProofBall } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useUnits } from "../../app/context";
import { useRemembered } from "../../app/useRemembered";
import { same } from "../../history/changes";
import { EntryMarks } from "../../pictures/EntryMarks/EntryMarks";
import { newStrike } from "../../strikes/newStrike";
import { faultOf } from "../../units/limits";
import { parseNumber, toDocument } from "../../units/units";
import classes from "./Proof.module.css";
import { hotkeyOf, OUTCOMES, type Outcome } from "./useProofs";

interface Props {
  proof: Proof;
  block: Proof["plan"]["blocks"][number];
  /** Balls of this club in this situation, to be drawn with their marks. */
  here: readonly ProofBall[];
  onBall: (ball: ProofBall) => void;
  onUndo: () => void;
}

type Figure = "to_hole_m" | "carry_m" | "entry_mm" | "mark_length_mm" | "mark_depth_mm";
const LIMITS = Object.entries(TABLES.proof_ball) as [Figure, (typeof TABLES.proof_ball)[string]][];
const EMPTY: Record<Figure, string> = {
  to_hole_m: "",
  carry_m: "",
  entry_mm: "",
  mark_length_mm: "",
  mark_depth_mm: "",
};

const NOTHING: Record<number, Record<Figure, string>> = {};

/** The next ball: how it came off by one key, and whatever else was seen of it. The remote knows good and heavy. */
export function BallEntry({ proof, block, here, onBall, onUndo }: Props) {
  const units = useUnits();
  // block by block, in fields that stay: the next figure goes on where the last was typed, and none into another block
  const [drafts, setDrafts] = useRemembered<Record<number, Record<Figure, string>>>(
    `ball-${proof.document.id}-${units.distance}`,
    NOTHING,
  );
  const typed = drafts[block.place] ?? EMPTY;
  const setTyped = (next: Record<Figure, string>) =>
    setDrafts(({ [block.place]: _, ...others }) => (same(next, EMPTY) ? others : { ...others, [block.place]: next }));
  const situation = proof.document.situations[block.situation];
  const sand = situation?.surface === "sand";
  const wrong = (key: Figure) => {
    const limit = TABLES.proof_ball[key];
    return limit ? faultOf(typed[key], limit, units) : null;
  };
  const figures = Object.fromEntries(
    LIMITS.map(([key, limit]) => {
      const number = wrong(key) === null ? parseNumber(typed[key]) : null;
      return [key, number === null ? null : toDocument(limit, number, units)];
    }),
  ) as Record<Figure, number | null>;
  const take = (outcome: Outcome | null) => {
    if (LIMITS.some(([key]) => wrong(key) !== null)) return;
    const ball: ProofBall = {
      id: newId(),
      club: block.club,
      situation: block.situation,
      block: block.place,
      outcome,
      ...figures,
      set_aside: null,
      origin: "typed",
      simulated: false,
    };
    if (outcome === null && ball.to_hole_m === null && ball.carry_m === null) return;
    onBall(ball);
    setTyped(EMPTY);
  };
  const outcomes = OUTCOMES.filter(({ in_sand }) => sand || !in_sand);
  useHotkeys([...outcomes.map(({ key }): [string, () => void] => [hotkeyOf(key), () => take(key)]), ["u", onUndo]]);
  useHotkeys(
    [
      ["PageDown", () => take("good")],
      ["PageUp", () => take("heavy")],
    ],
    [],
  );
  const field = (key: Figure, label: string, unit: string) => (
    <label>
      {label}
      <input
        value={typed[key]}
        inputMode="decimal"
        autoComplete="off"
        aria-invalid={wrong(key) !== null}
        onChange={(event) => setTyped({ ...typed, [key]: event.currentTarget.value })}
        onKeyDown={(event) => {
          if (event.key === "Enter") take(null);
        }}
      />
      {wrong(key) ? <small role="alert">{wrong(key)}</small> : <small>{unit}</small>}
    </label>
  );
  return (
    <section className={classes.entry} aria-label="The next ball">
      <div className={classes.outcomes}>
        {outcomes.map(({ key, name }) => (
          <Button key={key} size="lg" variant={key === "good" ? "filled" : "default"} onClick={() => take(key)}>
            <kbd>{hotkeyOf(key).toUpperCase()}</kbd>&nbsp;{name}
          </Button>
        ))}
        <Button size="lg" variant="subtle" onClick={onUndo}>
          <kbd>U</kbd>&nbsp;take the last out
        </Button>
      </div>
      <div className={classes.seen}>
        {field("to_hole_m", "To the hole", units.distance)}
        {field("carry_m", "Carry", units.distance)}
        {field("entry_mm", "Entry", "mm, behind is −")}
        {field("mark_length_mm", sand ? "Sand mark, length" : "Divot, length", "mm")}
        {field("mark_depth_mm", "and depth", "mm")}
        <Mark length={figures.mark_length_mm} depth={figures.mark_depth_mm} sand={sand} />
      </div>
      <EntryMarks
        strikes={here.map((ball) => ({ ...newStrike("", 0, ""), id: ball.id, entry_mm: ball.entry_mm ?? null }))}
        outliers={[]}
        mean={null}
        spread={null}
        low={null}
        high={null}
        sand={sand}
        entered={figures.entry_mm}
        onMark={(mm) => setTyped({ ...typed, entry_mm: String(mm) })}
        waits="this is the next ball's"
      />
    </section>
  );
}

/** The mark drawn beside a note: as long as a note and shallow is right, a trench is not. */
function Mark({ length, depth, sand }: { length: number | null; depth: number | null; sand: boolean }) {
  if (!sand) return null;
  return (
    <svg width={190} height={54} viewBox="0 0 190 54" role="img" aria-label="The mark beside a note">
      <rect x={6} y={2} width={98} height={20} fill="none" stroke="var(--ink-2)" strokeDasharray="3 2" />
      <text x={110} y={16} fontSize={12}>
        a note
      </text>
      <path
        d={`M6 26q${(length ?? 0) * 0.32} ${2 * (depth ?? 4) * 0.6} ${(length ?? 0) * 0.64} 0z`}
        fill="var(--sand)"
        stroke="var(--ink)"
      />
    </svg>
  );
}
