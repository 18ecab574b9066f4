import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { useStore } from "../../app/context";
import { showMoment } from "../../units/days";
import { counted } from "../../units/units";
import parts from "../parts/parts.module.css";
import { SavedMappings } from "../parts/SavedMappings";

/** Files that were taken before, each to be taken back; and the mappings that are saved. */
export function Earlier() {
  const { server, refresh } = useStore();
  const client = useQueryClient();
  const key = ["imports", server.id];
  const list = useQuery({
    queryKey: key,
    queryFn: () =>
      unwrap(api.GET("/api/fittings/{fitting_id}/imports", { params: { path: { fitting_id: server.id } } })),
  });
  const back = useMutation({
    mutationFn: (import_id: string) =>
      unwrap(
        api.POST("/api/fittings/{fitting_id}/imports/{import_id}/withdraw", {
          params: { path: { fitting_id: server.id, import_id } },
        }),
      ),
    onSuccess: () => {
      for (const name of ["imports", "session-summary", "carries"])
        void client.invalidateQueries({ queryKey: [name, server.id] });
      refresh();
    },
  });
  const taken = list.data?.imports.filter((run) => run.state === "taken" || run.state === "withdrawn") ?? [];
  return (
    <>
      {taken.length > 0 && (
        <ul className={parts.lines} aria-label="Files taken before">
          {taken.map((run) => (
            <li key={run.id}>
              <strong>{run.name}</strong>
              <span className={parts.unit}>
                {showMoment(run.created_at)}, by {run.taken_by},{" "}
                {run.state === "taken" ? counted(run.counts?.taken ?? 0, "strike") : "taken back"}
              </span>
              {run.state === "taken" && (run.counts?.taken ?? 0) > 0 && (
                <Button
                  size="xs"
                  variant="subtle"
                  loading={back.isPending && back.variables === run.id}
                  onClick={() => back.mutate(run.id)}
                >
                  Take it back
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
      {back.isError && <p role="alert">{back.error.message}</p>}
      <SavedMappings kind="strikes" />
    </>
  );
}
