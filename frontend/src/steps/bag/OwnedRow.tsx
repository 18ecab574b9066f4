import type { OwnedWedge, Recommendation } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { saidOf } from "../../app/usePlace";
import { SoleIcon } from "../../pictures/SoleIcon/SoleIcon";
import { showDay } from "../../units/days";
import { plain, trimmed } from "../../units/units";
import { SourceMark } from "../parts/SourceMark";
import classes from "./Bag.module.css";
import { entriesOf } from "./entries";

interface Props {
  wedges: OwnedWedge[];
  chosen: number;
  onChoose: (index: number) => void;
  pitchingWedge: string;
  result: Recommendation | null;
}

/** What they own, in order of loft: stamped against measured, bounce, width, and whether the proposal keeps it. */
export function OwnedRow({ wedges, chosen, onChoose, pitchingWedge, result }: Props) {
  const { server } = useStore();
  const saved = server.document.bag.wedges;
  const found = saved.map((_, n) => ({
    drawn: server.owned[n],
    verdict: result?.bag.find((one) => one.code === `own:${n}`),
  }));
  const said = saidOf(entriesOf(wedges), entriesOf(saved), found);
  if (wedges.length === 0)
    return (
      <p className={classes.empty}>
        Only the {pitchingWedge} pitching wedge so far. Put each wedge they own in the gauge and add it here: drift of a
        degree or more is common in soft heads.
      </p>
    );
  return (
    <ul className={classes.owned}>
      {wedges.map((wedge, i) => {
        const drift = wedge.stamped_loft_deg === null ? 0 : wedge.loft_deg - wedge.stamped_loft_deg;
        const { drawn, verdict } = said[i] ?? {};
        return (
          <li key={i}>
            <button
              type="button"
              className={classes.wedge}
              data-on={i === chosen}
              aria-pressed={i === chosen}
              onClick={() => onChoose(i)}
            >
              {drawn && <SoleIcon outline={drawn.outline_mm} width={150} height={44} />}
              <span className={classes.figures}>
                <span className={classes.loft}>{trimmed(wedge.loft_deg)}°</span>
                <span className={classes.bounce}>{trimmed(wedge.bounce_deg)}° bounce</span>
              </span>
              <span className={classes.facts}>
                {wedge.name}, {plain(wedge.sole_width_mm)}&nbsp;mm ·{" "}
                <SourceMark
                  source={wedge.measured ? (wedge.loft_typed ? "typed" : "measured") : "assumed"}
                  label={wedge.name}
                />
                <br />
                {Math.abs(drift) >= TABLES.drift_matters_deg ? (
                  <strong>
                    stamped {wedge.stamped_loft_deg}°, off by {plain(drift, 1)}°
                  </strong>
                ) : (
                  "stands where stamped"
                )}
                <br />
                {wedge.built && (
                  <>
                    built {showDay(wedge.built.on)}
                    {wedge.built.swing_weight && `, ${wedge.built.swing_weight}`}
                    <br />
                  </>
                )}
                {drawn && `edge ${plain(drawn.edge_height_mm, 1)}\u00a0mm off the floor, ${drawn.shape}`}
                <br />
                {wedge.wear_class === "worn" && (
                  <>
                    <strong>worn smooth</strong>
                    <br />
                  </>
                )}
                {verdict && (
                  <span className={classes.verdict}>
                    <strong>{verdict.verdict}</strong> {verdict.why}
                  </span>
                )}
              </span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
