import { Button, NativeSelect } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../../api/client";
import { lastFailure } from "../../api/lastFailure";
import { useStore, useUnits } from "../../app/context";
import { useOnSaved } from "../../app/useKeep";
import { useSendId } from "../../app/useSendId";
import { ScoreChart } from "../../pictures/ScoreChart/ScoreChart";
import { showDay, showMoment, today } from "../../units/days";
import { counted } from "../../units/units";
import { Choice } from "../parts/Choice";
import { PlainNumber } from "../parts/PlainNumber";
import classes from "./Card.module.css";

type Handover = Schemas["HandoverOut"];

/** The player's own page: made by a press, opened by a link, closed by a press; what was handed over stays as it was. */
export function HandOver() {
  const { server, refresh } = useStore();
  const units = useUnits();
  const [distance, setDistance] = useState(units.distance);
  const onSaved = useOnSaved();
  const client = useQueryClient();
  const fitting_id = server.id;
  const key = ["handovers", fitting_id];
  const list = useQuery({
    queryKey: key,
    queryFn: () => unwrap(api.GET("/api/fittings/{fitting_id}/handovers", { params: { path: { fitting_id } } })),
  });
  const sending = useSendId("handover");
  const make = useMutation({
    mutationFn: () =>
      onSaved(({ revision }) => {
        const told = { revision, distance };
        const body = { id: sending.of(told), ...told };
        return unwrap(api.POST("/api/fittings/{fitting_id}/handovers", { params: { path: { fitting_id } }, body }));
      }),
    onSuccess: (found) => {
      sending.arrived();
      client.setQueryData(key, found);
      refresh();
    },
  });
  const close = useMutation({
    mutationFn: (handover_id: string) =>
      unwrap(
        api.DELETE("/api/fittings/{fitting_id}/handovers/{handover_id}", {
          params: { path: { fitting_id, handover_id } },
        }),
      ),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: key });
      refresh();
    },
  });
  const handovers = list.data?.handovers ?? [];
  const failed = lastFailure(make, close) ?? list.error;
  return (
    <section className={classes.handover} aria-label="Hand over">
      <h2>Hand over</h2>
      <p className={classes.links}>
        A page for the player's phone: how far, how to play each lie, drills, clubs and dates. It works without a
        connection and shows nothing else of the studio.
      </p>
      <Choice
        label="Distances on it in"
        value={distance}
        options={[
          ["m", "metres"],
          ["yd", "yards"],
        ]}
        onChange={setDistance}
      />
      <Button size="xs" mt={10} loading={make.isPending} onClick={() => make.mutate()}>
        {handovers.length > 0 ? "Hand over as it is now" : "Hand it over"}
      </Button>
      {failed && (
        <p role="alert" className={classes.links}>
          {failed.message}
        </p>
      )}
      <ul>
        {handovers.map((one) => (
          <li key={one.id}>
            {one.qr && <img src={one.qr} width={150} height={150} alt="The link to the player's page as a QR code" />}
            <div>
              <strong>
                Handed over {showMoment(one.created_at)} by {one.made_by}
              </strong>
              {one.closed_at ? (
                <p>Closed {showMoment(one.closed_at)}.</p>
              ) : one.path === "" ? (
                <p>It held until {showDay(one.expires_at)}.</p>
              ) : (
                <p>
                  <a href={one.path} target="_blank" rel="noreferrer">
                    The player's page
                  </a>
                  , until {showDay(one.expires_at)}.{" "}
                  <Button size="xs" variant="default" disabled={close.isPending} onClick={() => close.mutate(one.id)}>
                    Close the page
                  </Button>
                </p>
              )}
              <Scores one={one} onAdded={() => client.invalidateQueries({ queryKey: key })} />
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** How the drills go: counted by the player on the phone, or by the fitter here. */
function Scores({ one, onAdded }: { one: Handover; onAdded: () => void }) {
  const { server } = useStore();
  const drills = one.page.card.drills;
  const [key, setKey] = useState(drills[0]?.key ?? "");
  const drill = drills.find((known) => known.key === key);
  const [score, setScore] = useState(drill?.mark ?? 0);
  const sending = useSendId();
  const add = useMutation({
    mutationFn: () => {
      const told = { drill: key, score, count: drill?.count ?? 10, on: today() };
      return unwrap(
        api.POST("/api/fittings/{fitting_id}/handovers/{handover_id}/scores", {
          params: { path: { fitting_id: server.id, handover_id: one.id } },
          body: { scores: [{ ...told, id: sending.of(told) }] },
        }),
      );
    },
    onSuccess: sending.arrived,
    // a score may have arrived though its answer did not: the list says so before another is sent
    onSettled: onAdded,
  });
  return (
    <>
      {drills.map((known) => {
        const mine = one.scores.filter((score) => score.drill === known.key);
        const standing = one.standings.find((found) => found.drill === known.key);
        return (
          mine.length > 0 && (
            <div key={known.key}>
              <p>
                {known.name}: {counted(mine.length, "go", "goes")}
                {mine.some((score) => score.by === "fitter") && ", some counted here"}
                {standing && standing.advice !== "go on" && `: ${standing.advice}`}
              </p>
              <ScoreChart name={known.name} count={known.count} mark={standing?.mark ?? known.mark} scores={mine} />
            </div>
          )
        );
      })}
      {drill && one.path !== "" && (
        <form
          className={classes.score}
          onSubmit={(event) => {
            event.preventDefault();
            add.mutate();
          }}
        >
          <NativeSelect
            label="Drill"
            value={key}
            data={drills.map((known) => ({ value: known.key, label: known.name }))}
            onChange={(event) => {
              const chosen = event.currentTarget.value;
              setKey(chosen);
              setScore(drills.find((known) => known.key === chosen)?.mark ?? 0);
            }}
          />
          <PlainNumber
            key={key}
            label="Came off"
            unit={`of ${drill.count}`}
            value={score}
            low={0}
            high={drill.count}
            onChange={setScore}
          />
          <Button size="xs" type="submit" variant="default" loading={add.isPending}>
            Log the score
          </Button>
          {add.isError && <span role="alert">{add.error.message}</span>}
        </form>
      )}
    </>
  );
}
