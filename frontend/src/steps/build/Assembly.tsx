import { NativeSelect } from "@mantine/core";
import type { Build } from "../../api/client";
import { plain } from "../../units/units";
import { PlainNumber } from "../parts/PlainNumber";
import parts from "../parts/parts.module.css";
import { limit, SwingWeight } from "./fields";

type Club = Build["clubs"][number];
type Wish = Club["wish"];

const AS_IT_IS = "as it is";

interface Props {
  club: Club;
  wish: Wish;
  sheet: Build;
  onChange: (changes: Partial<Wish>) => void;
}

/** Shaft, grip, length and swing weight: a club is put together with all of them, or keeps what it has. */
export function Assembly({ club, wish, sheet, onChange }: Props) {
  const assembled = (changes: Partial<Wish>) =>
    onChange({
      shaft: wish.shaft ?? club.usual.shaft,
      grip: wish.grip ?? club.usual.grip,
      length_in: wish.length_in ?? club.usual.length_in,
      ...changes,
    });
  return (
    <div className={parts.fields}>
      <NativeSelect
        label="Shaft"
        value={wish.shaft ?? ""}
        data={[
          { value: "", label: AS_IT_IS },
          ...sheet.shafts.map((s) => ({
            value: s.code,
            label: `${s.name}, ${plain(s.mass_g)}\u00a0g, ${s.stock} here`,
          })),
        ]}
        onChange={(event) => {
          const shaft = event.currentTarget.value;
          if (shaft) assembled({ shaft: shaft as Wish["shaft"] });
          else onChange({ shaft: null, grip: null, length_in: null, swing_weight: null });
        }}
      />
      {wish.shaft && wish.length_in !== null && wish.length_in !== undefined && (
        <>
          <NativeSelect
            label="Grip"
            value={wish.grip ?? ""}
            data={sheet.grips.map((g) => ({
              value: g.code,
              label: `${g.name}, ${plain(g.mass_g)}\u00a0g, ${g.stock} here`,
            }))}
            onChange={(event) => assembled({ grip: event.currentTarget.value as Wish["grip"] })}
          />
          <PlainNumber
            saved
            label="Length"
            unit="in"
            value={wish.length_in}
            {...limit("length_in")}
            onChange={(length_in) => assembled({ length_in })}
          />
          <SwingWeight
            label="Wished swing weight"
            empty="as it comes"
            value={wish.swing_weight ?? null}
            onChange={(swing_weight) => onChange({ swing_weight })}
          />
        </>
      )}
    </div>
  );
}
