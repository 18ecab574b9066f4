import { Button, Checkbox, SegmentedControl } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type Recommendation, unwrap } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore } from "../../app/context";
import { useOnSaved } from "../../app/useKeep";
import { useRemembered } from "../../app/useRemembered";
import { useSendId } from "../../app/useSendId";
import { trimmed } from "../../units/units";
import { PlainNumber } from "../parts/PlainNumber";
import parts from "../parts/parts.module.css";
import classes from "./Proof.module.css";

const LIMITS = TABLES.proof_plan as Record<"candidates" | "situations" | "balls_per_block" | "rounds", Limit>;
const OFFERED = 8;
const BEGUN: Begun = { picked: null, met: null, perBlock: 5, rounds: 4, hidden: true };

interface Limit {
  low: number;
  high: number;
}

/** A plan as far as it is chosen; what is not, goes with the proposal. */
interface Begun {
  picked: Offer[] | null;
  met: string[] | null;
  perBlock: number;
  rounds: number;
  hidden: boolean;
}

interface Offer {
  code: string;
  name: string;
  note: string;
}

/**
 * Clubs that can be proved: those of the shown set as they would be built, the owned ones, and the next best heads; and
 * those that were chosen while the proposal was another.
 */
function offers(
  result: Recommendation,
  owned: readonly { name: string; loft_deg: number }[],
  chosen: readonly Offer[],
): Offer[] {
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
  const offered = every.filter((one, i) => every.findIndex((other) => other.code === one.code) === i).slice(0, 10);
  const before = chosen.filter((one) => !isOwned(one) && offered.every((other) => other.code !== one.code));
  return [...offered, ...before.map((one) => ({ ...one, note: `at ${trimmed(Number(one.code.split("@")[1]))}°` }))];
}

const isOwned = ({ code }: Offer) => code.startsWith("own:");

/** Those of the offers that were chosen: an owned wedge by its name where it stands in another place of the bag by now. */
function among(clubs: readonly Offer[], chosen: readonly Offer[]): string[] {
  return chosen.flatMap((mine) => {
    const named = clubs.filter((one) => one.name === mine.name);
    const found = named.find((one) => one.code === mine.code) ?? (isOwned(mine) ? named.find(isOwned) : undefined);
    return found ? [found.code] : [];
  });
}

/** What is to be proved: two to four clubs, one to three situations, and how many balls. */
export function PlanForm({ result, onPlanned }: { result: Recommendation; onPlanned: (id: string) => void }) {
  const { server, draft } = useStore();
  const client = useQueryClient();
  const [begun, begin] = useRemembered("proof-plan", BEGUN);
  const { picked, met, perBlock, rounds, hidden } = begun;
  const change = (changes: Partial<Begun>) => begin((before) => ({ ...before, ...changes }));
  const clubs = offers(result, draft.bag.wedges, picked ?? []);
  const chosen = picked === null ? first(result, clubs) : among(clubs, picked);
  const every = result.scenarios.filter((scenario) => scenario.kind !== "full").sort((a, b) => b.share - a.share);
  const short = every.filter((one, n) => n < OFFERED || met?.includes(one.key));
  const usual = (["turf", "sand"] as const).flatMap((kind) => short.find((one) => one.kind === kind)?.key ?? []);
  const faced = (met ?? usual).filter((key) => short.some((one) => one.key === key));
  const sending = useSendId("proof");
  const onSaved = useOnSaved();
  const plan = useMutation({
    mutationFn: () => {
      const situations = faced.flatMap((key) => {
        const found = result.scenarios.find((s) => s.key === key);
        return found ? [{ shot: found.shot, ground: found.ground }] : [];
      });
      const told = { candidates: chosen, situations, balls_per_block: perBlock, rounds, hide_model: hidden };
      const id = sending.of(told);
      const post = async () => {
        await unwrap(
          api.POST("/api/fittings/{fitting_id}/proofs", {
            params: { path: { fitting_id: server.id } },
            body: { id, ...told, situations: situations as never, seed: seedOf(id) },
          }),
        );
        return id;
      };
      // its clubs go by the places of the bag that is on the screen; a figure to be mended elsewhere keeps nobody from it
      return draft.bag === server.document.bag ? post() : onSaved(post);
    },
    onSuccess: async (id) => {
      sending.arrived();
      begin(BEGUN);
      await client.invalidateQueries({ queryKey: ["proofs", server.id] });
      onPlanned(id);
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
  const missing = [
    ...(chosen.length < LIMITS.candidates.low ? ["two clubs"] : []),
    ...(faced.length < LIMITS.situations.low ? ["a situation"] : []),
  ];
  return (
    <div className={`${parts.form} ${classes.plan}`}>
      <fieldset className={parts.group}>
        <legend>Clubs, two to four</legend>
        {clubs.map((one) => (
          <Checkbox
            key={one.code}
            label={`${one.name}, ${one.note}`}
            checked={chosen.includes(one.code)}
            onChange={() => {
              const codes = toggled(chosen, one.code, LIMITS.candidates.high);
              change({ picked: codes.flatMap((code) => clubs.find((club) => club.code === code) ?? []) });
            }}
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
            onChange={() => change({ met: toggled(faced, one.key, LIMITS.situations.high) })}
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
            whole
            onChange={(perBlock) => change({ perBlock })}
          />
          <PlainNumber
            label="Rounds"
            unit=""
            value={rounds}
            {...LIMITS.rounds}
            whole
            onChange={(rounds) => change({ rounds })}
          />
        </div>
        <p className={classes.note}>
          {missing.length > 0 ? (
            `Choose ${missing.join(" and ")} at least.`
          ) : (
            <>
              {balls} balls in all, {perBlock * rounds} with each club in each situation.{" "}
              <strong>{ahead.data?.words}</strong>
            </>
          )}
        </p>
        <SegmentedControl
          aria-label="What the model expects"
          size="xs"
          value={hidden ? "hidden" : "shown"}
          data={[
            { value: "hidden", label: "hide what is expected" },
            { value: "shown", label: "show it" },
          ]}
          onChange={(value) => change({ hidden: value === "hidden" })}
        />
        <div>
          <Button mt={12} loading={plan.isPending} disabled={missing.length > 0} onClick={() => plan.mutate()}>
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

/**
 * The new head that brings most, against the owned club whose place it takes, or else their most lofted one; of a player
 * who owns none against the head that comes next in its place.
 */
function first(result: Recommendation, clubs: readonly Offer[]): string[] {
  const club = result.clubs
    .filter((one) => !one.owned)
    .sort((a, b) => b.brings_strokes_round - a.brings_strokes_round)[0];
  const owned = clubs.filter(isOwned);
  if (!club) return owned.slice(0, 2).map((one) => one.code);
  const next = club.candidates.slice(1).map((one) => `${one.code}@${one.head.loft_deg}`);
  const against = owned.find((one) => one.name === club.replaces) ?? owned.at(-1) ?? clubs.find((one) => next.includes(one.code)); // biome-ignore format: one line
  return [`${club.code}@${club.loft_deg}`, ...(against ? [against.code] : [])];
}
