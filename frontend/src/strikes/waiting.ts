import { counted } from "../units/units";
import { type Act, strikeOf } from "./actStore";

const NAMES: Record<Act["kind"], string> = {
  take: "strike",
  tell: "strike",
  undo: "strike",
  back: "strike",
  ball: "ball",
  ball_tell: "ball",
  feel: "feel of a block",
  tick: "tick",
};
const SEVERAL: Record<string, string> = { "feel of a block": "feels of blocks" };

/** What waits, in words: every strike, ball or piece of work once, whatever is said of it; and whether it is one thing. */
export function waitingWords(acts: readonly Act[]): { words: string; one: boolean } {
  const found = new Map<string, Set<string>>();
  for (const act of acts) {
    const name = NAMES[act.kind];
    const which = act.kind === "feel" ? `${act.proof} ${act.block}` : strikeOf(act);
    found.set(name, (found.get(name) ?? new Set()).add(which));
  }
  const words = [...found].map(([name, { size }]) => counted(size, name, SEVERAL[name]));
  return { words: words.join(", "), one: [...found.values()].reduce((sum, { size }) => sum + size, 0) === 1 };
}
