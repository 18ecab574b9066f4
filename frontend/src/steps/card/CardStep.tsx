import { TextInput } from "@mantine/core";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { exactly } from "../../api/answerKey";
import { api, type Card, unwrap } from "../../api/client";
import { quiet } from "../../api/quiet";
import { namedIn, TABLES } from "../../api/tables";
import { useStore, useUnits } from "../../app/context";
import { inDistance, metres, plain, trimmed } from "../../units/units";
import { Choice } from "../parts/Choice";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import { StepHead } from "../parts/StepHead";
import classes from "./Card.module.css";
import { Drills } from "./Drills";
import { HandOver } from "./HandOver";
import { Lies } from "./Lies";

type Chosen = ReturnType<typeof useStore>["draft"]["card"];

const PARTS = TABLES.card_parts as { key: Chosen["parts"][number]; name: string }[];
const PAPERS = TABLES.card_papers.map(({ key, name }) => [key as Chosen["size"], name] as const);
/** A page takes a second to set: not of every choice on the way to the one that is wanted. */
const BETWEEN_CHOICES_MS = 400;

/** What the player takes home: distances, how to play each lie, what to practise; on paper as it is shown. */
export default function CardStep() {
  const { server, draft, edit } = useStore();
  const units = useUnits();
  const card = useQuery({
    ...exactly("card", server, units.distance),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/fittings/{fitting_id}/card", { params: { path: { fitting_id: server.id } }, signal })),
  });
  const set = (change: Partial<Chosen>) => edit("card", { ...draft.card, ...change });
  return (
    <>
      <StepHead title="Card" aside={card.data && `wedges ${namedIn(TABLES.card_bases, card.data.basis)}`} />
      {card.isError && (
        <p role="alert" className={classes.note}>
          {card.error.message}
        </p>
      )}
      {card.isPending && (
        <p role="status" className={classes.note}>
          Working out the card …
        </p>
      )}
      {card.data && (
        <>
          <section className={classes.paper} aria-label="Bag card">
            <Paper />
            <div className={classes.choices}>
              <Choice label="Paper" value={draft.card.size} options={PAPERS} onChange={(size) => set({ size })} />
              <Choice
                label="Print"
                value={draft.card.grey ? "grey" : "colour"}
                options={[
                  ["colour", "colour"],
                  ["grey", "greyscale"],
                ]}
                onChange={(print) => set({ grey: print === "grey" })}
              />
              <fieldset className={classes.parts}>
                <legend>On it</legend>
                {PARTS.map(({ key, name }) => (
                  <label key={key}>
                    <input
                      type="checkbox"
                      checked={draft.card.parts.includes(key)}
                      disabled={draft.card.parts.length === 1 && draft.card.parts.includes(key)}
                      onChange={(event) =>
                        set({
                          parts: PARTS.map((part) => part.key).filter((one) =>
                            one === key ? event.currentTarget.checked : draft.card.parts.includes(one),
                          ),
                        })
                      }
                    />
                    {name}
                  </label>
                ))}
              </fieldset>
              <TextInput
                label="Ball that the carries hold for"
                value={draft.card.ball}
                maxLength={TABLES.most.ball}
                onChange={(event) => set({ ball: event.currentTarget.value })}
              />
              <p className={classes.links}>
                Bag card: <a href={`/api/fittings/${server.id}/card/bag.pdf`}>PDF</a>,{" "}
                <a href={`/api/fittings/${server.id}/card/bag.png`} download>
                  PNG
                </a>
                , <a href={`/api/fittings/${server.id}/card/distances.csv`}>CSV</a>. Setup card:{" "}
                <a href={`/api/fittings/${server.id}/card/setup.pdf`}>PDF</a>,{" "}
                <a href={`/api/fittings/${server.id}/card/setup.png`} download>
                  PNG
                </a>
                .
              </p>
              {card.data.measured < card.data.rows.length && (
                <p className={classes.links}>
                  {card.data.measured} of {card.data.rows.length} carries stand on strikes, the others on the model.
                </p>
              )}
            </div>
          </section>
          <Lies lies={card.data.lies} outlines={card.data.outlines_mm} hand={card.data.hand} />
          <Drills card={card.data} />
          <HandOver />
          <Distances card={card.data} />
        </>
      )}
    </>
  );
}

/** The first page of the bag card at true size, as the printer gets it; or why it does not fit. */
function Paper() {
  const { server } = useStore();
  const units = useUnits();
  const [shown, setShown] = useState<string | null>(null);
  const picture = useQuery({
    ...exactly("card-picture", server, units.distance),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async ({ signal }) => {
      if (shown) await quiet(BETWEEN_CHOICES_MS, signal);
      return unwrap(
        api.GET("/api/fittings/{fitting_id}/card/bag.png", {
          params: { path: { fitting_id: server.id } },
          parseAs: "blob",
          signal,
        }),
      ) as Promise<unknown> as Promise<Blob>;
    },
  });
  useEffect(() => {
    if (!picture.data) return;
    const reader = new FileReader();
    reader.onload = () => setShown(String(reader.result));
    reader.readAsDataURL(picture.data);
    return () => reader.abort();
  }, [picture.data]);
  if (picture.isError)
    return (
      <p role="alert" className={classes.unfit}>
        {picture.error.message}
      </p>
    );
  if (!shown)
    return (
      <p role="status" className={`${classes.sheet} ${classes.awaited}`}>
        Setting the card …
      </p>
    );
  const before = picture.isPlaceholderData;
  // two dots of the picture are one of the screen: true size
  return (
    <section className={classes.sheet} aria-label="The bag card at true size" aria-busy={before} tabIndex={0}>
      {before && (
        <p role="status" className={classes.setting}>
          Setting the card as chosen now …
        </p>
      )}
      <img src={shown} srcSet={`${shown} 2x`} alt="The bag card as it is printed" />
    </section>
  );
}

/** The table of the card: what to take for a distance. */
function Distances({ card }: { card: Card }) {
  const units = useUnits();
  const shown = (value: number) => plain(inDistance(metres(value), units.distance));
  const name = (place: number) => {
    const row = card.rows[place];
    return row ? `${trimmed(row.loft_deg)}° ${row.swing_name}` : "";
  };
  return (
    <div className={classes.table}>
      <CopyTable caption="What to take">
        <thead>
          <tr>
            <th className={parts.num}>{units.distance}</th>
            <th>Take</th>
            <th>Into the wind</th>
            <th>Firm green</th>
          </tr>
        </thead>
        <tbody>
          {card.distances.map((line) => (
            <tr key={line.distance_m}>
              <td className={parts.num}>{shown(line.distance_m)}</td>
              <td>{name(line.still)}</td>
              <td>{name(line.into)}</td>
              <td>{name(line.firm)}</td>
            </tr>
          ))}
        </tbody>
      </CopyTable>
    </div>
  );
}
