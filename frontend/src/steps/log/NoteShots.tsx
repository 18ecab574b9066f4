import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { v4 as newId } from "uuid";
import { api, RequestError, unwrap } from "../../api/client";
import { TABLES } from "../../api/tables";
import { useStore, useUnits } from "../../app/context";
import { usePlace } from "../../app/usePlace";
import { useRemembered } from "../../app/useRemembered";
import { same } from "../../history/changes";
import { today } from "../../units/days";
import { faultOf } from "../../units/limits";
import { counted, fromDistance, parseNumber } from "../../units/units";
import parts from "../parts/parts.module.css";
import classes from "./Log.module.css";
import { type Log, type LogShot, useAgain } from "./useLog";

/** A round as far as it is told. */
interface Telling {
  /** Its day and its name, from the first shot on. */
  on: string | null;
  round: string | null;
  club: { code: string; name: string } | null;
  result: string;
  /** Shots that were sent and got no answer, as they were told one after the other: they may be in the log. */
  unanswered: LogShot[];
  noted: number;
}

const NOTHING: Telling = {
  on: null,
  round: null,
  club: null,
  result: "green",
  unanswered: [],
  noted: 0,
};
/** Figures as they are typed, in the reader's units. */
const NO_FIGURES = { far: "", left: "" };

/** A round noted here, from the player's card or from what they tell. */
export function NoteShots({ log }: { log: Log }) {
  const { server } = useStore();
  const units = useUnits();
  const again = useAgain();
  // yesterday's round is over
  const [telling, tell] = useRemembered(`note-${today()}`, NOTHING);
  const change = (changes: Partial<Telling>) => tell((before) => ({ ...before, ...changes }));
  const { club, result, unanswered, noted } = telling;
  const [{ far, left }, setFigures] = useRemembered(`note-figures-${units.distance}`, NO_FIGURES);
  const type = (figures: Partial<typeof NO_FIGURES>) => setFigures((before) => ({ ...before, ...figures }));
  const on = telling.on ?? today();
  const { place, choose } = usePlace("lie", log.choices.map(lieOf), 0);
  const choice = log.choices[place ?? 0];
  const card = useRef<HTMLInputElement>(null);
  const [photo, setPhoto] = useState<string | null>(null);
  const [fresh] = useState(() => newId());
  const round = telling.round ?? fresh;
  const add = useMutation({
    mutationFn: ({ told }: { told: Omit<LogShot, "id">; club: typeof club; left: string }) => {
      const last = unanswered.at(-1);
      const again = last !== undefined && same({ ...last, id: "" }, { ...told, id: "" });
      const shot = { ...told, id: again ? last.id : newId() };
      // those that were told otherwise since are taken back, whether they arrived or not
      const before = unanswered.filter((one) => one.id !== shot.id);
      change({ unanswered: [...before, shot], round, on });
      const shots = [...before.map((one) => ({ ...one, removed: true })), shot];
      return unwrap(
        api.POST("/api/fittings/{fitting_id}/log", { params: { path: { fitting_id: server.id } }, body: { shots } }),
      );
    },
    onError: (error) => {
      if (!(error instanceof RequestError) || !error.refused) return;
      // those that were refused are not in the log
      const places = (error.body?.faults ?? []).map(({ field }) => Number(/^shots\.(\d+)/.exec(field)?.[1] ?? "-1"));
      tell((now) => {
        const refused = places.some((place) => place >= 0) ? places : [now.unanswered.length - 1];
        return { ...now, unanswered: now.unanswered.filter((_, place) => !refused.includes(place)) };
      });
    },
    onSuccess: (_, sent) => {
      tell((now) => ({
        ...now,
        unanswered: [],
        noted: now.noted + 1,
        // what was chosen and typed since is of the next shot
        club: now.club === sent.club ? null : now.club,
      }));
      setFigures((now) => (now.left === sent.left ? { ...now, left: "" } : now));
      again();
    },
  });
  if (!choice) return null;
  const hit = log.clubs_here.filter((one) => one.name === club?.name);
  const taken = (hit.find((one) => one.code === club?.code) ?? hit[0])?.code ?? choice.advised;
  const distance = (text: string) => {
    const number = parseNumber(text);
    return number === null ? null : fromDistance(number, units.distance);
  };
  const faults = {
    far: faultOf(far, TABLES.log_shot.distance_m, units),
    left: faultOf(left, TABLES.log_shot.left_m, units),
  };
  const wrong = faults.far !== null || faults.left !== null;
  return (
    <section className={classes.section} aria-label="Note a round here">
      <h2>Note a round here</h2>
      <p className={classes.quiet}>
        {photo === null
          ? "From what the player tells, or from a photo of their card: "
          : "The card stays in this browser. "}
        <button
          type="button"
          className={parts.quietButton}
          onClick={() => (photo === null ? card.current?.click() : setPhoto(null))}
        >
          {photo === null ? "show the photo beside" : "Put it away"}
        </button>
      </p>
      <input
        ref={card}
        type="file"
        accept="image/*"
        aria-label="Photo of a card"
        className="visually-hidden"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.currentTarget.files?.[0];
          if (!file) return;
          const reader = new FileReader();
          reader.onload = () => setPhoto(String(reader.result));
          reader.readAsDataURL(file);
        }}
      />
      {photo !== null && <img className={classes.photo} src={photo} alt="The card of the round" />}
      <form
        className={parts.fields}
        onSubmit={(event) => {
          event.preventDefault();
          if (wrong || place === null) return;
          const told = {
            round,
            on,
            situation: choice.situation as LogShot["situation"],
            ground: choice.ground,
            distance_m: distance(far),
            club: taken,
            advised: choice.advised,
            result: result as LogShot["result"],
            left_m: result === "holed" ? null : distance(left),
            holed_in: null,
            removed: false,
          };
          add.mutate({ told, club, left });
        }}
      >
        <TextInput
          label="Day"
          type="date"
          value={on}
          onChange={(event) => {
            change({ on: event.currentTarget.value, round: newId(), noted: 0 });
          }}
        />
        <NativeSelect
          label="Lie"
          value={String(place ?? "")}
          data={[
            ...(place === null ? [{ value: "", label: "choose it" }] : []),
            ...log.choices.map((one, n) => ({ value: String(n), label: lieOf(one).name })),
          ]}
          onChange={(event) => {
            if (event.currentTarget.value === "") return;
            choose(Number(event.currentTarget.value));
            change({ club: null });
          }}
        />
        <NativeSelect
          label="Club"
          value={taken}
          data={log.clubs_here.map((one) => ({
            value: one.code,
            label: one.code === choice.advised ? `${one.name}, advised` : one.name,
          }))}
          onChange={(event) =>
            change({ club: log.clubs_here.find((one) => one.code === event.currentTarget.value) ?? null })
          }
        />
        <NativeSelect
          label="Result"
          value={result}
          data={TABLES.results.map((one) => ({ value: one.key, label: one.name }))}
          onChange={(event) => change({ result: event.currentTarget.value })}
        />
        <TextInput
          label={`To the hole, ${units.distance}`}
          w={110}
          inputMode="decimal"
          placeholder="usual"
          value={far}
          error={faults.far}
          onChange={(event) => type({ far: event.currentTarget.value })}
        />
        <TextInput
          label={`Left, ${units.distance}`}
          w={110}
          inputMode="decimal"
          placeholder="usual"
          value={left}
          error={faults.left}
          onChange={(event) => type({ left: event.currentTarget.value })}
        />
        <Button type="submit" mt={21} loading={add.isPending} disabled={wrong || place === null}>
          Note the shot
        </Button>
      </form>
      <p role="status" className={classes.quiet}>
        {noted > 0
          ? `${counted(noted, "shot")} noted for this round.`
          : "One by one; the round is made with the first."}
      </p>
      {noted > 0 && (
        <p className={classes.quiet}>
          <button type="button" className={parts.quietButton} onClick={() => change({ round: newId(), noted: 0 })}>
            Begin another round of this day
          </button>
        </p>
      )}
      {add.error && <p role="alert">{add.error.message}</p>}
    </section>
  );
}

/** A lie as it is chosen: the situation and its ground. */
const lieOf = ({ name, ground }: Log["choices"][number]) => ({ name: ground ? `${name}, ${ground}` : name });
