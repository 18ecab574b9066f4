import { Button } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { useStore } from "../../app/context";
import classes from "./Proof.module.css";

/** A proof that was taken out comes back at a press. */
export function PutBack({ proof, onBack }: { proof: string; onBack: () => void }) {
  const { server } = useStore();
  const client = useQueryClient();
  const back = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST("/api/fittings/{fitting_id}/proofs/{proof_id}/back", {
          params: { path: { fitting_id: server.id, proof_id: proof } },
        }),
      ),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ["proofs", server.id] });
      onBack();
    },
  });
  return (
    <p className={classes.note} role="status">
      The proof is taken out.{" "}
      <Button size="xs" variant="default" loading={back.isPending} onClick={() => back.mutate()}>
        Put it back
      </Button>
      {back.isError && ` ${back.error.message}`}
    </p>
  );
}
