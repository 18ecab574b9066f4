import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Kept, unwrap } from "../../api/client";
import { useStore, useUnits } from "../../app/context";
import { metres, plain, showDistance, trimmed } from "../../units/units";
import { CopyTable } from "../parts/CopyTable";
import parts from "../parts/parts.module.css";
import { StepHead } from "../parts/StepHead";
import classes from "./Kept.module.css";

const when = new Intl.DateTimeFormat("en-GB", { dateStyle: "medium", timeStyle: "short" });
const NOW = "now";

/** Kept proposals, and any two of them side by side; the present state can stand on either side. */
export default function KeptPage() {
  const { server, edit } = useStore();
  const list = useQuery({
    queryKey: ["kept", server.id],
    queryFn: () => unwrap(api.GET("/api/fittings/{fitting_id}/kept", { params: { path: { fitting_id: server.id } } })),
  });
  const [chosen, setChosen] = useState<string | null>(null);
  const kept = list.data?.kept ?? [];
  const against = chosen ?? kept[0]?.id ?? null;
  const other = useQuery({
    queryKey: ["kept", server.id, against],
    enabled: against !== null && against !== NOW,
    queryFn: () =>
      unwrap(
        api.GET("/api/fittings/{fitting_id}/kept/{snapshot_id}", {
          params: { path: { fitting_id: server.id, snapshot_id: against ?? "" } },
        }),
      ),
  });
  const reopen = (snapshot: Kept) => {
    const { player, grounds, bag, choices } = snapshot.document;
    edit("player", player);
    edit("grounds", grounds);
    edit("bag", bag);
    edit("choices", choices);
  };
  return (
    <>
      <StepHead title="Kept proposals" aside={`${kept.length} kept`} />
      {list.isError && <p className={classes.line}>{list.error.message}</p>}
      {list.data && kept.length === 0 && (
        <p className={classes.line}>
          Nothing kept yet. Press “Keep this proposal” (K): inputs, engine and result are then fixed for good.
        </p>
      )}
      <ul className={classes.list}>
        {kept.map((line) => (
          <li key={line.id}>
            <button
              type="button"
              data-on={line.id === against}
              aria-pressed={line.id === against}
              onClick={() => setChosen(line.id)}
            >
              <strong>{when.format(new Date(line.created_at))}</strong>
              <span>{line.clubs.join(" · ")}</span>
              <span className={parts.unit}>
                by {line.kept_by}, engine {line.engine_version}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {other.isError && <p className={classes.line}>{other.error.message}</p>}
      {other.data && (
        <>
          <Comparison snapshot={other.data} />
          <p className={classes.line}>
            <Button variant="default" onClick={() => other.data && reopen(other.data)}>
              Work on from this one
            </Button>{" "}
            <span className={parts.unit}>
              brings its inputs back; the kept proposal itself stays as it is, and Undo takes it back
            </span>
          </p>
        </>
      )}
    </>
  );
}

function Comparison({ snapshot }: { snapshot: Kept }) {
  const { server } = useStore();
  const units = useUnits();
  const rows = differences(snapshot, server.recommendation, (m) => showDistance(metres(m), units.distance));
  const inputs = inputChanges(snapshot.document, server.document);
  return (
    <>
      <CopyTable caption={`Kept ${when.format(new Date(snapshot.created_at))} beside now`}>
        <thead>
          <tr>
            <th>What</th>
            <th>Kept</th>
            <th>Now</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([what, before, now]) => (
            <tr key={what} data-on={before !== now}>
              <td>{what}</td>
              <td>{before}</td>
              <td>{now}</td>
            </tr>
          ))}
        </tbody>
      </CopyTable>
      <CopyTable caption={inputs.length === 0 ? "No input changed" : "Inputs that changed"}>
        <tbody>
          {inputs.map(([path, before, now]) => (
            <tr key={path}>
              <td>{path}</td>
              <td>{before}</td>
              <td>{now}</td>
            </tr>
          ))}
        </tbody>
      </CopyTable>
    </>
  );
}

type Row = [string, string, string];

function differences(snapshot: Kept, now: Kept["result"] | null, distance: (m: number) => string): Row[] {
  const before = snapshot.result;
  const club = (result: Kept["result"] | null, slot: number) => {
    const found = result?.clubs[slot];
    return found
      ? `${trimmed(found.loft_deg)}°, ${trimmed(found.bounce_deg)}° bounce, ${found.candidates[0]?.name}`
      : "none";
  };
  const slots = Math.max(before.clubs.length, now?.clubs.length ?? 0);
  const score = (r: Kept["result"] | null) => (r?.sets[0] ? plain(100 * r.sets[0].score, 1) : "none");
  const gaps = (r: Kept["result"] | null) => r?.lofts.gaps.map((g) => distance(g.gap_m)).join(", ") ?? "none";
  return [
    ...Array.from({ length: slots }, (_, i): Row => [`Club ${i + 1}`, club(before, i), club(now, i)]),
    ["Full gaps", gaps(before), gaps(now)],
    ["Set value, of 100", score(before), score(now)],
    ["Engine", before.engine_version, now?.engine_version ?? "none"],
  ];
}

/** Leaves of two documents that differ, by their path. */
function inputChanges(before: unknown, now: unknown, path = ""): Row[] {
  if (JSON.stringify(before) === JSON.stringify(now) || path === "rack") return [];
  const isTree = (v: unknown): v is Record<string, unknown> => typeof v === "object" && v !== null;
  if (!isTree(before) || !isTree(now)) return [[path.replaceAll("_", " "), leaf(before), leaf(now)]];
  const keys = [...new Set([...Object.keys(before), ...Object.keys(now)])];
  return keys.flatMap((key) => inputChanges(before[key], now[key], path ? `${path} › ${key}` : key));
}

function leaf(value: unknown) {
  if (value === null || value === undefined || value === "") return "none";
  return typeof value === "object" ? `${Object.keys(value).length} entries` : String(value);
}
