import { Button, SegmentedControl } from "@mantine/core";
import { Link } from "react-router";
import type { Head } from "../api/client";
import { TABLES, usualOf } from "../api/tables";
import { useUnits } from "../app/context";
import { useRemembered } from "../app/useRemembered";
import { FlightSide } from "../pictures/FlightSide/FlightSide";
import { SolePass } from "../pictures/SolePass/SolePass";
import { StrikeWindows } from "../pictures/StrikeWindows/StrikeWindows";
import { PlainNumber } from "../steps/parts/PlainNumber";
import parts from "../steps/parts/parts.module.css";
import { inReader, plain, showPercent, toDocument, trimmed } from "../units/units";
import classes from "./Desk.module.css";
import { Dials } from "./Dials";
import { LIES, type Setup } from "./setup";
import { useDesk } from "./useDesk";

const PLAIN = { ...usualOf(TABLES.head), loft_deg: 56, bounce_deg: 12, sole_width_mm: 22 } as unknown as Head;
const HEADS = [PLAIN, { ...PLAIN, bounce_deg: 6, sole_width_mm: 17 }];
const NAMES = Object.keys(LIES);
const FIRST = NAMES[0] ?? "";
const HOME = LIES[FIRST] as Setup;

/** Any club, any lie, any setup, without a player: what happens, how risky it is, and which setup makes another club the same. */
export default function ShotDesk() {
  const units = useUnits();
  const [lie, setLie] = useRemembered("desk-lie", FIRST);
  const [setup, setSetup] = useRemembered<Setup>("desk-setup", HOME);
  const [heads, setHeads] = useRemembered<Head[]>("desk-heads", HEADS);
  const { answer, failure } = useDesk({ ...setup, heads, twins: true });
  const home = LIES[lie] ?? HOME;
  const first = answer?.heads[0];
  const second = answer?.heads[1];
  const name = (head: Head | undefined) => (head ? `${trimmed(head.loft_deg)}° with ${trimmed(head.bounce_deg)}°` : "");
  const put = (index: number, head: Head) => setHeads(heads.map((h, i) => (i === index ? head : h)));
  return (
    <main className={classes.page}>
      <header className={classes.bar}>
        <Link to="/">Oblatus</Link>
        <h1 style={{ margin: 0, fontSize: 19, fontStretch: "104%" }}>Shot desk</h1>
        <SegmentedControl
          aria-label="Lie"
          value={lie}
          data={NAMES}
          onChange={(next) => {
            setLie(next);
            setSetup(LIES[next] ?? HOME);
          }}
        />
      </header>
      {failure && (
        <p role="alert" className={classes.failure}>
          {failure}
        </p>
      )}
      {first && (
        <>
          <div className={classes.verdict}>
            <span className={classes.light} data-light={first.risk}>
              {first.risk}
            </span>
            <span>{first.risk_rule}</span>
          </div>
          <SolePass
            head={first}
            ghost={second}
            ghostName={name(heads[1])}
            setup={setup}
            unit={units.distance}
            thatchMm={answer?.thatch_mm ?? 0}
            onEntry={(entry_mm) => setSetup({ ...setup, entry_mm })}
          />
          <StrikeWindows
            rows={(answer?.heads ?? []).map((head, i) => ({
              name: name(heads[i]),
              note: `${plain(heads[i]?.sole_width_mm ?? 0)}\u00a0mm`,
              head,
            }))}
            sand={setup.ground.kind === "sand"}
            entryMm={setup.entry_mm}
            spreadMm={setup.entry_spread_mm}
            whose="entries"
            focus={0}
            onFocus={() => {}}
          />
          <Dials setup={setup} home={home} onChange={setSetup} />
          <FlightSide
            flights={(answer?.heads ?? []).map((h, i) => ({
              name: name(heads[i]),
              points: h.flight_m,
              apex: h.apex_m,
              landing: h.landing_deg,
            }))}
            unit={units.distance}
          />
          {second?.twin && (
            <p className={classes.verdict}>
              <strong>Same bounce by setup.</strong> On this ground {name(heads[1])} comes nearest to {name(heads[0])}{" "}
              with {trimmed(second.twin.lean_deg)}° of lean and the face{" "}
              {second.twin.opening_deg === 0 ? "square" : `opened ${trimmed(second.twin.opening_deg)}°`}:{" "}
              {showPercent(second.twin.likeness)} alike.
              <Button
                variant="default"
                size="xs"
                onClick={() =>
                  setSetup({
                    ...setup,
                    lean_deg: second.twin?.lean_deg ?? setup.lean_deg,
                    opening_deg: second.twin?.opening_deg ?? setup.opening_deg,
                  })
                }
              >
                Set it up so
              </Button>
            </p>
          )}
        </>
      )}
      <div className={classes.heads}>
        {heads.map((head, i) => (
          <HeadFields
            key={i}
            title={i === 0 ? "Club in hand" : "Against"}
            head={head}
            onChange={(next) => put(i, next)}
          />
        ))}
      </div>
    </main>
  );
}

const FIELDS = TABLES.head.filter((figure) => figure.short !== null);

/** A head by its numbers; one outside its range is said here and not asked of the engine. */
function HeadFields({ title, head, onChange }: { title: string; head: Head; onChange: (head: Head) => void }) {
  const units = useUnits();
  const whole = head as unknown as Record<string, number>;
  return (
    <fieldset className={parts.group}>
      <legend>{title}</legend>
      <div className={parts.fields}>
        {FIELDS.map((figure) => (
          <PlainNumber
            key={figure.key}
            label={figure.words}
            unit={figure.unit}
            width={118}
            low={inReader(figure, figure.low, units)}
            high={inReader(figure, figure.high, units)}
            value={inReader(figure, whole[figure.key] ?? 0, units)}
            onChange={(typed) => onChange({ ...head, [figure.key]: toDocument(figure, typed, units) })}
          />
        ))}
      </div>
    </fieldset>
  );
}
