import { showDay } from "../../units/days";
import { counted } from "../../units/units";
import { OutList } from "../parts/OutList";
import { useOut } from "../parts/useOut";
import type { Marked } from "./useLog";

/** Rounds that were taken out of the log, to be put back. */
export function RoundsOut({ onMark }: { onMark: (marked: Marked) => void }) {
  const out = useOut(({ rounds }) =>
    rounds.map(({ round, on, shots }) => ({ key: round, on, words: `${showDay(on)}, ${counted(shots, "shot")}` })),
  );
  return (
    <OutList
      title="Rounds taken out"
      none="None. A round that is taken out can be put back here."
      onBack={({ key, on }) => onMark({ round: key, on, out: false })}
      {...out}
    />
  );
}
