import type { Build } from "../../api/client";
import { PlainNumber } from "../parts/PlainNumber";
import parts from "../parts/parts.module.css";
import { BentBefore, limit, Reading } from "./fields";

type Club = Build["clubs"][number];
type Wish = Club["wish"];

interface Props {
  club: Club;
  wish: Wish;
  onChange: (changes: Partial<Wish>) => void;
}

/** What the bench is to do to the head: bends and grinds. */
export function HeadFields({ club, wish, onChange }: Props) {
  const grind = (changes: Partial<Wish["grind"]>) => onChange({ grind: { ...wish.grind, ...changes } });
  return (
    <div className={parts.fields}>
      <PlainNumber
        saved
        label="Loft"
        unit="°"
        value={wish.loft_deg}
        {...limit("loft_deg")}
        onChange={(loft_deg) => onChange({ loft_deg })}
      />
      <PlainNumber
        saved
        label="Lie"
        unit="°"
        value={wish.lie_deg ?? club.before.lie_deg}
        {...limit("lie_deg")}
        onChange={(lie_deg) => onChange({ lie_deg })}
      />
      <Reading
        label="Board mark, toe +"
        unit="mm"
        value={wish.lie_mark_mm ?? null}
        bound={limit("lie_mark_mm")}
        onChange={(lie_mark_mm) => onChange({ lie_mark_mm })}
      />
      <BentBefore value={wish.bent_before_deg} onChange={(bent_before_deg) => onChange({ bent_before_deg })} />
      <PlainNumber
        saved
        label="Heel off"
        unit="mm"
        value={wish.grind.heel_mm}
        {...limit("heel_mm")}
        onChange={(heel_mm) => grind({ heel_mm })}
      />
      <PlainNumber
        saved
        label="Toe off"
        unit="mm"
        value={wish.grind.toe_mm}
        {...limit("toe_mm")}
        onChange={(toe_mm) => grind({ toe_mm })}
      />
      <PlainNumber
        saved
        label="Back relief, share"
        unit="%"
        value={100 * wish.grind.back_fraction}
        low={100 * limit("back_fraction").low}
        high={100 * limit("back_fraction").high}
        onChange={(percent) => grind({ back_fraction: percent / 100 })}
      />
      <PlainNumber
        saved
        label="Back relief, angle"
        unit="°"
        value={wish.grind.back_deg}
        {...limit("back_deg")}
        onChange={(back_deg) => grind({ back_deg })}
      />
      <PlainNumber
        saved
        label="Front bevel, length"
        unit="mm"
        value={wish.grind.bevel_mm}
        {...limit("bevel_mm")}
        onChange={(bevel_mm) => grind({ bevel_mm })}
      />
      <PlainNumber
        saved
        label="Front bevel, angle"
        unit="°"
        value={wish.grind.bevel_deg}
        {...limit("bevel_deg")}
        onChange={(bevel_deg) => grind({ bevel_deg })}
      />
    </div>
  );
}
