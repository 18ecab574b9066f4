import type { Club, Fitting } from "../../api/client";
import { useStore } from "../../app/context";
import { trimmed } from "../../units/units";
import parts from "./parts.module.css";

/** A head that the fitter set by hand, and what it is called. */
type ByHandHead = Fitting["document"]["choices"]["pinned"][number] & { name: string };

/** The heads set by hand that do not stand in the proposed set: all of them while there is none. */
export const notStanding = ({ document, by_hand, recommendation }: Fitting): ByHandHead[] =>
  document.choices.pinned
    .map((pin, n) => ({ ...pin, name: by_hand[n] ?? pin.code }))
    .filter(({ code, loft_deg }) => !recommendation?.clubs.some((club) => stands(club, code, loft_deg)));

const stands = (club: Club, code: string, loft: number) =>
  club.pinned && club.code === code && Math.abs(club.loft_deg - loft) < 0.01;

/** Heads set by hand, each to be let go. */
export function ByHand({ heads }: { heads: ByHandHead[] }) {
  const { edit } = useStore();
  if (heads.length === 0) return null;
  return (
    <ul className={parts.inLine} aria-label="Heads set by hand">
      {heads.map(({ name, loft_deg, code }) => (
        <li key={`${code} ${loft_deg}`}>
          {name}, {trimmed(loft_deg)}°{" "}
          <button
            type="button"
            className={parts.quietButton}
            aria-label={`Let it go: ${name}`}
            onClick={() =>
              edit("choices", (now) => ({
                ...now,
                pinned: now.pinned.filter((pin) => pin.code !== code || pin.loft_deg !== loft_deg),
              }))
            }
          >
            Let it go
          </button>
        </li>
      ))}
    </ul>
  );
}
