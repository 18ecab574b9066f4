import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { showMoment } from "../../units/days";
import parts from "./parts.module.css";

/** The mappings that are saved for files of a kind, each to be forgotten. */
export function SavedMappings({ kind }: { kind: "strikes" | "log" }) {
  const client = useQueryClient();
  const found = useQuery({
    queryKey: ["mappings", kind],
    queryFn: () => unwrap(api.GET("/api/mappings", { params: { query: { kind } } })),
  });
  const forget = useMutation({
    mutationFn: (mapping_id: string) =>
      unwrap(api.DELETE("/api/mappings/{mapping_id}", { params: { path: { mapping_id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["mappings"] }),
  });
  const mappings = found.data?.mappings ?? [];
  if (mappings.length === 0) return null;
  return (
    <>
      {forget.isError && <p role="alert">{forget.error.message}</p>}
      <ul className={parts.lines} aria-label="Saved mappings">
        {mappings.map((mapping) => (
          <li key={mapping.id}>
            <strong>{mapping.name}</strong>
            <span className={parts.unit}>mapping, saved {showMoment(mapping.kept_at)}</span>
            <Button
              aria-label={`Forget it: ${mapping.name}`}
              size="xs"
              variant="subtle"
              onClick={() => forget.mutate(mapping.id)}
            >
              Forget it
            </Button>
          </li>
        ))}
      </ul>
    </>
  );
}
