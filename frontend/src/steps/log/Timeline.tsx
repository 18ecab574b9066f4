import { Button } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { Link, useNavigate } from "react-router";
import { v4 as newId } from "uuid";
import { api, type Schemas, unwrap } from "../../api/client";
import { useStore } from "../../app/context";
import { showDay } from "../../units/days";
import { plain, trimmed } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import { WORD } from "../parts/SourceMark";
import classes from "./Log.module.css";

type Era = Schemas["EraOut"];

/** The player over the years: fittings beside each other, every moment, and the next fitting at a press. */
export function Timeline() {
  const { server } = useStore();
  const go = useNavigate();
  const next = useRef(newId());
  const found = useQuery({
    queryKey: ["timeline", server.id, server.revision],
    placeholderData: (last) => last,
    queryFn: () =>
      unwrap(api.GET("/api/fittings/{fitting_id}/timeline", { params: { path: { fitting_id: server.id } } })),
  });
  const open = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST("/api/fittings/{fitting_id}/next", {
          params: { path: { fitting_id: server.id } },
          body: { id: next.current },
        }),
      ),
  });
  if (!found.data)
    return (
      <p role={found.isError ? "alert" : "status"} className={classes.note}>
        {found.error?.message ?? "Looking back …"}
      </p>
    );
  const { eras, moments, situations } = found.data;
  const last = eras.at(-1);
  const rows: readonly (readonly [string, (era: Era) => string])[] = [
    ["lofts, °", (era) => era.lofts_deg.map((loft) => trimmed(loft)).join(" / ") || "–"],
    ["bounces, °", (era) => era.bounces_deg.map((bounce) => trimmed(bounce)).join(" / ") || "–"],
    ["attack, °", (era) => `${plain(era.attack_deg, 1)} ± ${plain(era.attack_spread, 1)}, ${WORD[era.attack_source]}`],
    ["lean, °", (era) => `${plain(era.lean_deg, 1)} ± ${plain(era.lean_spread, 1)}, ${WORD[era.lean_source]}`],
    ["handicap", (era) => (era.handicap === null ? "–" : trimmed(era.handicap))],
    ["promised, strokes a round", (era) => figure(era.promised_strokes_round)],
    [
      "came of it, strokes a round",
      (era) =>
        era.came_strokes_round === null
          ? era.rounds > 0
            ? "not judged"
            : "no rounds noted"
          : figure(era.came_strokes_round),
    ],
    ["rounds noted", (era) => String(era.rounds)],
    ["what the drills before it did", (era) => era.drills.join("; ") || "–"],
    ...Object.entries(situations).map(
      ([key, name]) => [`${name}, strokes lost a round`, (era: Era) => figure(era.strokes[key] ?? null)] as const,
    ),
  ];
  return (
    <>
      <section className={classes.verdict} aria-label="Next fitting">
        {last?.here ? (
          <>
            <p className={classes.big}>The next fitting starts from this one</p>
            <p>
              Clubs as built and as rechecked, grounds, seasons and carries go along; the habit is marked “from then”
              until it is measured again. This fitting stays as it is.
            </p>
            <Button
              loading={open.isPending}
              onClick={() => open.mutate(undefined, { onSuccess: ({ id }) => void go(`/fittings/${id}/player`) })}
            >
              Begin the next fitting
            </Button>
            {open.error && <p role="alert">{open.error.message}</p>}
          </>
        ) : (
          <p>
            A later fitting follows this one:{" "}
            {last && <Link to={`/fittings/${last.fitting_id}/log`}>that of {showDay(last.on)}</Link>}.
          </p>
        )}
      </section>
      <CopyTable caption="Fittings">
        <thead>
          <tr>
            <th>what</th>
            {eras.map((era) => (
              <th key={era.fitting_id}>
                {era.here ? (
                  `${showDay(era.on)}, this one`
                ) : (
                  <Link to={`/fittings/${era.fitting_id}/log`}>{showDay(era.on)}</Link>
                )}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, tell]) => (
            <tr key={name}>
              <td>{name}</td>
              {eras.map((era) => (
                <td key={era.fitting_id}>{tell(era)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </CopyTable>
      <section className={classes.section} aria-label="Every moment">
        <h2>What happened</h2>
        <ol className={classes.moments}>
          {moments.map((moment, n) => (
            <li key={n} data-kind={moment.kind}>
              <span className={classes.when}>{showDay(moment.on)}</span>
              <Link to={`/fittings/${moment.fitting_id}/${moment.link}`}>{moment.words}</Link>
            </li>
          ))}
        </ol>
        {moments.length === 0 && <p className={parts.unit}>Nothing yet.</p>}
      </section>
    </>
  );
}

const figure = (value: number | null) => (value === null ? "–" : plain(value, 2));
