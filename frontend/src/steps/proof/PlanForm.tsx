import { Button, Checkbox, SegmentedControl } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Recommendation, unwrap } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { useSendId } from "../../app/useSendId";
import { trimmed } from "../../units/units";
import { PlainNumber } from "../parts/PlainNumber";
import parts from "../parts/parts.module.css";
import classes from "./Proof.module.css";

const LIMITS = TABLES.proof_plan as Record<"candidates" | "situations" | "balls_per_block" | "rounds", Limit>;
const OFFERED = 8;

interface Limit {
  low: number;
  high: number;
}

interface Offer {
  code: string;
  name: string;
  note: string;
}

/** Clubs that can be proved: those of the shown set as they would be built, the owned ones, and the next best heads. */
function offers(result: Recommendation, owned: readonly { name: string; loft_deg: number }[]): Offer[] {
  const built = result.clubs
    .filter((club) => !club.owned)
    .map((club) => ({
      code: `${club.code}@${club.loft_deg}`,
      name: club.name,
      note: `proposed at ${trimmed(club.loft_deg)}°`,
    }));
  const mine = owned.map((wedge, i) => ({
    code: `own:${i}`,
    name: wedge.name,
    note: `owned, ${trimmed(wedge.loft_deg)}°`,
  }));
  const next = result.clubs.flatMap((club) =>
    club.candidates
      .filter((one) => !one.owned)
      .slice(1, 3)
      .map((one) => ({
        code: `${one.code}@${one.head.loft_deg}`,
        name: one.name,
        note: `in the place of ${trimmed(club.loft_deg)}°`,
      })),
  );
  const every = [...built, ...mine, ...next];
  return every.filter((one, i) => every.findIndex((other) => other.code === one.code) === i).slice(0, 10);
}

/** What is to be proved: two to four clubs, one to three situations, and how many balls. */
export function PlanForm({ result, onPlanned }: { result: Recommendation; onPlanned: () => void }) {
  const { server, draft } = useStore();
  const client = useQueryClient();
  const clubs = offers(result, draft.bag.wedges);
  const short = result.scenarios
    .filter((scenario) => scenario.kind !== "full")
    .sort((a, b) => b.share - a.share)
    .slice(0, OFFERED);
  const [chosen, setChosen] = useState<string[]>(() => first(result, clubs));
  const [faced, setFaced] = useState<string[]>(() =>
    [...short.filter((s) => s.kind === "turf").slice(0, 1), ...short.filter((s) => s.kind === "sand").slice(0, 1)].map(
      (s) => s.key,
    ),
  );
  const [perBlock, setPerBlock] = useState(5);
  const [rounds, setRounds] = useState(4);
  const [hidden, setHidden] = useState(true);
  const sending = useSendId();
  const plan = useMutation({
    mutationFn: () => {
      const situations = faced.flatMap((key) => {
        const found = result.scenarios.find((s) => s.key === key);
        return found ? [{ shot: found.shot, ground: found.ground }] : [];
      });
      const told = { candidates: chosen, situations, balls_per_block: perBlock, rounds, hide_model: hidden };
      const id = sending.of(told);
      return unwrap(
        api.POST("/api/fittings/{fitting_id}/proofs", {
          params: { path: { fitting_id: server.id } },
          body: { id, ...told, situations: situations as never, seed: seedOf(id) },
        }),
      );
    },
    onSuccess: async () => {
      sending.arrived();
      await client.invalidateQueries({ queryKey: ["proofs", server.id] });
      onPlanned();
    },
  });
  const toggled = (list: string[], key: string, most: number) =>
    list.includes(key) ? list.filter((one) => one !== key) : [...list, key].slice(-most);
  const asked = { situations: faced.length, balls_per_block: perBlock, rounds };
  const ahead = useQuery({
    queryKey: ["proof-plan", asked],
    enabled: faced.length > 0,
    queryFn: ({ signal }) =>
      unwrap(
        api.GET("/api/fittings/{fitting_id}/proof-plan", {
          params: { path: { fitting_id: server.id }, query: asked },
          signal,
        }),
      ),
  });
  const balls = perBlock * rounds * chosen.length * faced.length;
  return (
    <div className={`${parts.form} ${classes.plan}`}>
      <fieldset className={parts.group}>
        <legend>Clubs, two to four</legend>
        {clubs.map((one) => (
          <Checkbox
            key={one.code}
            label={`${one.name}, ${one.note}`}
            checked={chosen.includes(one.code)}
            onChange={() => setChosen(toggled(chosen, one.code, LIMITS.candidates.high))}
          />
        ))}
      </fieldset>
      <fieldset className={parts.group}>
        <legend>Situations, one to three</legend>
        {short.map((one) => (
          <Checkbox
            key={one.key}
            label={`${one.shot_name}, ${one.ground}`}
            checked={faced.includes(one.key)}
            onChange={() => setFaced(toggled(faced, one.key, LIMITS.situations.high))}
          />
        ))}
      </fieldset>
      <fieldset className={parts.group}>
        <legend>Balls</legend>
        <div className={parts.fields}>
          <PlainNumber
            label="Balls in a block"
            unit=""
            value={perBlock}
            {...LIMITS.balls_per_block}
            onChange={setPerBlock}
          />
          <PlainNumber label="Rounds" unit="" value={rounds} {...LIMITS.rounds} onChange={setRounds} />
        </div>
        <p className={classes.note}>
          {balls} balls in all, {perBlock * rounds} with each club in each situation.{" "}
          {faced.length > 0 && <strong>{ahead.data?.words}</strong>}
        </p>
        <SegmentedControl
          aria-label="What the model expects"
          size="xs"
          value={hidden ? "hidden" : "shown"}
          data={[
            { value: "hidden", label: "hide what is expected" },
            { value: "shown", label: "show it" },
          ]}
          onChange={(value) => setHidden(value === "hidden")}
        />
        <div>
          <Button
            mt={12}
            loading={plan.isPending}
            disabled={chosen.length < LIMITS.candidates.low || faced.length < LIMITS.situations.low}
            onClick={() => plan.mutate()}
          >
            Plan the proof
          </Button>
        </div>
        {plan.isError && (
          <p role="alert" className={parts.error}>
            {plan.error.message}
          </p>
        )}
      </fieldset>
    </div>
  );
}

/** The seed of a plan's order follows from its id: sent again it is the same plan. */
const seedOf = (id: string) => Number.parseInt(id.slice(0, 7), 16);

/** The new head that brings most, against the owned club whose place it takes, or else the one nearest in loft. */
function first(result: Recommendation, clubs: readonly Offer[]): string[] {
  const club = result.clubs
    .filter((one) => !one.owned)
    .sort((a, b) => b.brings_strokes_round - a.brings_strokes_round)[0];
  const owned = clubs.filter((one) => one.code.startsWith("own:"));
  if (!club) return owned.slice(0, 2).map((one) => one.code);
  const replaced = owned.find((one) => one.name === club.replaces) ?? owned.at(-1);
  return [`${club.code}@${club.loft_deg}`, ...(replaced ? [replaced.code] : [])];
}
