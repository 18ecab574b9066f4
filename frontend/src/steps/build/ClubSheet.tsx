import type { Build } from "../../api/client";
import { RememberedUnder, useRememberedOf } from "../../app/useRemembered";
import { AsBuilt } from "./AsBuilt";
import { Assembly } from "./Assembly";
import { BeforeAndAfter } from "./BeforeAndAfter";
import classes from "./Build.module.css";
import { HeadFields } from "./HeadFields";
import type { Tick } from "./useBuild";
import { Work } from "./Work";
import { Worth } from "./Worth";

type Club = Build["clubs"][number];
type Wish = Club["wish"];

const ACTIONS: Record<Club["action"], string> = { keep: "keep", bend: "bend", grind: "grind", replace: "new" };

interface Props {
  place: number;
  club: Club;
  /** What is wished by now: the sheet may be of a moment before. */
  wish: Wish;
  sheet: Build;
  /** What of its work is done; null while it is not at the bench. */
  ticks: Tick[] | null;
  onTick: (operation: number, done: boolean) => void;
  onChange: (changes: Partial<Wish>) => void;
}

/** One club: before and after, what is wished, what the bench does in its order. */
export function ClubSheet({ place, club, wish, sheet, ticks, onTick, onChange }: Props) {
  const remembered = useRememberedOf(`${wish.code} ${place}`); // a sheet may have two of one head
  return (
    <RememberedUnder value={remembered}>
      <section className={classes.club} aria-label={club.name}>
        <h2>
          {club.name}: <span className={classes.action}>{ACTIONS[club.action]}</span>
        </h2>
        <BeforeAndAfter club={club} />
        <HeadFields club={club} wish={wish} onChange={onChange} />
        <Assembly club={club} wish={wish} sheet={sheet} onChange={onChange} />
        <Worth club={club} sheet={sheet} />
        <AsBuilt place={place} club={club} wish={wish} sheet={sheet} onChange={onChange} />
        <Work club={club} ticks={ticks} onTick={onTick} />
      </section>
    </RememberedUnder>
  );
}
