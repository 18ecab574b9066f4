import { useQuery } from "@tanstack/react-query";
import { api, unwrap } from "../../api/client";
import { useStore } from "../../app/context";
import { useInSight } from "../../app/useInSight";
import { KEPT } from "../../app/useKeep";
import { useRemembered } from "../../app/useRemembered";
import { StepHead } from "../parts/StepHead";
import classes from "./Kept.module.css";
import { nameOf } from "./nameOf";
import { NOW, Side } from "./Side";
import { TakeOut } from "./TakeOut";

/** Kept proposals: named, taken out, and any two of them side by side; the present state can stand on either side. */
export default function KeptPage() {
  const { server } = useStore();
  const list = useQuery({
    queryKey: ["kept", server.id],
    queryFn: () => unwrap(api.GET("/api/fittings/{fitting_id}/kept", { params: { path: { fitting_id: server.id } } })),
  });
  const kept = list.data?.kept ?? [];
  const [first, setChosen] = useInSight(KEPT, kept, (line) => line.id);
  const [beside, setBeside] = useRemembered("beside", NOW);
  const other = kept.find((line) => line.id === beside && line.id !== first?.id);
  return (
    <>
      <StepHead title="Kept proposals" aside={list.data ? `${kept.length} kept` : undefined} />
      {list.isError && <p className={classes.line}>{list.error.message}</p>}
      {list.data && kept.length === 0 && (
        <p className={classes.line}>
          Nothing kept yet. Press “Keep this proposal” (K): inputs, engine and result are then fixed for good.
        </p>
      )}
      <TakeOut kept={kept} chosen={first} onChoose={setChosen} />
      {first && (
        <>
          <label className={classes.beside}>
            Beside
            <select value={other?.id ?? NOW} onChange={(event) => setBeside(event.currentTarget.value)}>
              <option value={NOW}>the fitting as it stands</option>
              {kept
                .filter((line) => line.id !== first.id)
                .map((line) => (
                  <option key={line.id} value={line.id}>
                    {nameOf(line)}
                  </option>
                ))}
            </select>
          </label>
          <Side first={first} other={other} />
        </>
      )}
    </>
  );
}
