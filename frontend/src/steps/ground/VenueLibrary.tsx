import { Autocomplete, Button, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Ground, type Schemas, unwrap } from "../../api/client";
import { lastFailure } from "../../api/lastFailure";
import { TABLES } from "../../api/tables";
import { useSendId } from "../../app/useSendId";
import { showDay, today } from "../../units/days";
import { counted } from "../../units/units";
import { Choice } from "../parts/Choice";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import { copied } from "./copied";
import { FirmnessHistory } from "./FirmnessHistory";
import classes from "./Ground.module.css";
import { lastOf, SEASONS, seasonOf } from "./seasons";

type Venue = Schemas["VenueOut"];

interface Props {
  ground: Ground;
  onChange: (ground: Ground) => void;
}

/** Where and when this ground was read, what the studio knows of the venue, and last winter's readings at a press. */
export function VenueLibrary({ ground, onChange }: Props) {
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  const library = useQuery({ queryKey: ["venues"], queryFn: () => unwrap(api.GET("/api/venues")) });
  const again = () => client.invalidateQueries({ queryKey: ["venues"] });
  const [forgotten, setForgotten] = useState<readonly Venue[]>([]);
  const sending = useSendId();
  const keep = useMutation({
    mutationFn: (body: Schemas["VenueDocument"]) =>
      unwrap(api.POST("/api/venues", { params: { query: { id: sending.of(body) } }, body })),
    onSuccess: (_, kept) => {
      sending.arrived();
      setForgotten((now) => now.filter((one) => one.ground !== kept.ground));
      return again();
    },
  });
  const forget = useMutation({
    mutationFn: (record: Venue) =>
      unwrap(api.DELETE("/api/venues/{record_id}", { params: { path: { record_id: record.id } } })),
    onSuccess: (_, record) => {
      setForgotten((now) => [...now, record]);
      void again();
    },
  });
  const records = library.data?.records ?? [];
  const names = [...new Set(records.map((record) => record.venue))];
  const venue = ground.venue ?? "";
  const season = ground.season ?? seasonOf(today());
  const read_on = ground.read_on ?? "";
  const mine = records.filter((record) => record.venue.toLowerCase() === venue.trim().toLowerCase());
  const use = (record: Venue) => {
    const { name, share, formerly } = ground;
    const { venue: there, season: then, read_on: day } = record;
    onChange({ ...copied(record.ground), name, share, formerly, venue: there, season: then, read_on: day });
  };
  const failure = lastFailure(keep, forget);
  return (
    <section className={classes.library} aria-label="Venue library">
      <div className={parts.fields}>
        <Autocomplete
          label="Venue"
          w={210}
          maxLength={TABLES.most.name}
          placeholder={names.length > 0 ? "a known one, or new" : "its name"}
          data={names}
          value={venue}
          onChange={(value) => onChange({ ...ground, venue: value.trim() === "" ? null : value })}
        />
        <Choice
          label="Season"
          value={season}
          options={SEASONS.map((name) => [name, name] as const)}
          onChange={(next) => onChange({ ...ground, season: next })}
        />
        <TextInput
          label="Read on"
          type="date"
          max={today()}
          value={read_on}
          onChange={(event) => onChange({ ...ground, read_on: event.currentTarget.value || null })}
        />
        <Button
          variant="default"
          mt={19}
          disabled={venue.trim() === "" || keep.isPending}
          onClick={() =>
            keep.mutate({ venue: venue.trim(), season, read_on: read_on === "" ? today() : read_on, ground })
          }
        >
          Keep in the library
        </Button>
      </div>
      {forgotten.map(({ id, venue: there, season: then, read_on: day, ground: kept }) => (
        <p key={id} className={classes.known} role="status">
          The readings of {showDay(day)} at {there} are forgotten.
          <button
            type="button"
            className={parts.quietButton}
            onClick={() => keep.mutate({ venue: there, season: then, read_on: day, ground: kept })}
          >
            Put them back
          </button>
        </p>
      ))}
      {failure && (
        <p role="alert" className={classes.fault}>
          {failure.message}
        </p>
      )}
      {mine.length > 0 && (
        <div className={classes.known}>
          {SEASONS.map((name) => {
            const last = lastOf(mine, name);
            return last ? (
              <Button key={name} size="xs" variant="default" onClick={() => use(last)}>
                Use last {name}'s
              </Button>
            ) : null;
          })}
          <button type="button" className={parts.quietButton} aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? "Hide its history" : `Its history: read ${counted(mine.length, "time")}`}
          </button>
        </div>
      )}
      {open && mine.length > 0 && (
        <>
          <FirmnessHistory records={mine} />
          <CopyTable caption={`${mine[0]?.venue}: read ${counted(mine.length, "time")}`}>
            <thead>
              <tr>
                <th>Read on</th>
                <th>Season</th>
                {TABLES.grounds.map((surface) => (
                  <th key={surface.key}>{surface.words}</th>
                ))}
                <th>Greens</th>
                <th>Kept by</th>
                <th> </th>
              </tr>
            </thead>
            <tbody>
              {mine.map((record) => (
                <tr key={record.id} data-on={record.read_on === ground.read_on && record.season === ground.season}>
                  <td>{showDay(record.read_on)}</td>
                  <td>{record.season}</td>
                  {record.surfaces.map((surface) => (
                    <td key={surface.key}>{surface.words}</td>
                  ))}
                  <td>{record.ground.green}</td>
                  <td>{record.kept_by}</td>
                  <td>
                    <button type="button" className={parts.quietButton} onClick={() => use(record)}>
                      Use
                    </button>{" "}
                    <button type="button" className={parts.quietButton} onClick={() => forget.mutate(record)}>
                      Forget
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </CopyTable>
        </>
      )}
    </section>
  );
}
