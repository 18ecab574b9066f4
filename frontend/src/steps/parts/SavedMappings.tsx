import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, unwrap } from "../../api/client";
import { lastFailure } from "../../api/lastFailure";
import { showMoment } from "../../units/days";
import { OutList } from "./OutList";
import parts from "./parts.module.css";

/** The mappings that are saved for files of a kind, each to be forgotten. */
export function SavedMappings({ kind }: { kind: "strikes" | "log" }) {
  const client = useQueryClient();
  const found = useQuery({
    queryKey: ["mappings", kind],
    queryFn: () => unwrap(api.GET("/api/mappings", { params: { query: { kind } } })),
  });
  const [forgotten, setForgotten] = useState<readonly { id: string; name: string }[]>([]);
  const again = () => void client.invalidateQueries({ queryKey: ["mappings"] });
  const forget = useMutation({
    mutationFn: ({ id }: { id: string; name: string }) =>
      unwrap(api.DELETE("/api/mappings/{mapping_id}", { params: { path: { mapping_id: id } } })),
    onSuccess: (_, { id, name }) => {
      setForgotten((now) => [...now, { id, name }]);
      again();
    },
  });
  const back = useMutation({
    mutationFn: (mapping_id: string) =>
      unwrap(api.POST("/api/mappings/{mapping_id}/back", { params: { path: { mapping_id } } })),
    onSuccess: (_, mapping_id) => {
      setForgotten((now) => now.filter((one) => one.id !== mapping_id));
      again();
    },
  });
  const mappings = found.data?.mappings ?? [];
  const out = found.data?.forgotten ?? [];
  const failure = lastFailure(forget, back);
  if (mappings.length === 0 && forgotten.length === 0 && out.length === 0 && !failure) return null;
  return (
    <>
      {failure && <p role="alert">{failure.message}</p>}
      {forgotten.map(({ id, name }) => (
        <p key={id} role="status">
          {name} is forgotten.{" "}
          <button type="button" className={parts.quietButton} disabled={back.isPending} onClick={() => back.mutate(id)}>
            Put it back
          </button>
        </p>
      ))}
      <ul className={parts.lines} aria-label="Saved mappings">
        {mappings.map((mapping) => (
          <li key={mapping.id}>
            <strong>{mapping.name}</strong>
            <span className={parts.unit}>mapping, saved {showMoment(mapping.kept_at)}</span>
            <Button
              aria-label={`Forget it: ${mapping.name}`}
              size="xs"
              variant="subtle"
              onClick={() => forget.mutate(mapping)}
            >
              Forget it
            </Button>
          </li>
        ))}
      </ul>
      {out.length > 0 && (
        <OutList
          title="Mappings forgotten"
          lines={out.map(({ id, name }) => ({ key: id, words: name }))}
          onBack={({ key }) => back.mutate(key)}
        />
      )}
    </>
  );
}
