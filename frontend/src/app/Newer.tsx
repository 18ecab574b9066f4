import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useNewer } from "../api/program";
import { takeNewest } from "../offline/worker";
import { useQueue } from "../strikes/queue";
import { useStore } from "./context";
import { Panel } from "./Panel";

/** The server was upgraded since this page was opened: the page goes on, and says so. `kept`: whether what waits stays. */
export function Newer({ kept = true }: { kept?: boolean }) {
  const newer = useNewer();
  const load = useMutation({ mutationFn: takeNewest });
  if (!newer) return null;
  return (
    <Panel kind="choose" label="A newer Oblatus" title="There is a newer Oblatus">
      <p>
        This page is still the one of before, and may not show everything as it is.{" "}
        {kept
          ? "What is saved stays, and so does what waits to be sent."
          : "What is not saved yet goes with this page: wait until it is."}
      </p>
      <Button loading={load.isPending} onClick={() => load.mutate()}>
        Load the newer one
      </Button>
      {load.isError && <p role="status">It cannot be had at the moment. This page stays as it is: try again.</p>}
    </Panel>
  );
}

/** The same above a step. */
export function NewerHere() {
  const { draftKept } = useStore();
  const { failure } = useQueue();
  return <Newer kept={draftKept && failure === null} />;
}
