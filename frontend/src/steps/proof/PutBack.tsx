import { Button } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { useStore } from "../../app/context";
import { showDay } from "../../units/days";
import { OutList } from "../parts/OutList";
import { outKey, useOut } from "../parts/useOut";
import classes from "./Proof.module.css";

function usePutBack(onBack: (proof: string) => void) {
  const { server } = useStore();
  const client = useQueryClient();
  return useMutation({
    mutationFn: (proof: string) =>
      unwrap(
        api.POST("/api/fittings/{fitting_id}/proofs/{proof_id}/back", {
          params: { path: { fitting_id: server.id, proof_id: proof } },
        }),
      ),
    onSuccess: async (_, proof) => {
      void client.invalidateQueries({ queryKey: outKey(server.id) });
      await client.invalidateQueries({ queryKey: ["proofs", server.id] });
      onBack(proof);
    },
  });
}

/** A proof that was taken out comes back at a press. */
export function PutBack({ proof, onBack }: { proof: string; onBack: (proof: string) => void }) {
  const back = usePutBack(onBack);
  return (
    <p className={classes.note} role="status">
      The proof is taken out.{" "}
      <Button size="xs" variant="default" loading={back.isPending} onClick={() => back.mutate(proof)}>
        Put it back
      </Button>
      {back.isError && ` ${back.error.message}`}
    </p>
  );
}

/** Proofs that were taken out before, to be put back. */
export function ProofsOut({ onBack }: { onBack: (proof: string) => void }) {
  const back = usePutBack(onBack);
  const { failure, ...out } = useOut(({ proofs }) =>
    proofs.map(({ id, on, clubs }) => ({ key: id, words: `${showDay(on)}: ${clubs.join(", ")}` })),
  );
  return (
    <OutList
      title="Proofs taken out"
      none="None. A proof that is taken out can be put back here for thirty days."
      onBack={({ key }) => back.mutate(key)}
      failure={back.error ?? failure}
      {...out}
    />
  );
}
