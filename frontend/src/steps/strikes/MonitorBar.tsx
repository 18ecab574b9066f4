import { Button } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, type FittingDocument, RequestError, type Schemas, unwrap } from "../../api/client";
import { useStore } from "../../app/context";
import { useHearing } from "../../devices/live";
import { State } from "../../devices/State";
import { clubName, stationsOf } from "../../strikes/clubs";
import { counted } from "../../units/units";
import classes from "./Strikes.module.css";

type Monitor = Schemas["MonitorOut"];

const AGAIN_MS = 3000;

/** The strike monitor: connected or not, whose strikes come next, what it sent that could not be used. */
export function MonitorBar({ club, station }: { club: string; station: string }) {
  const { server } = useStore();
  const client = useQueryClient();
  const hearing = useHearing();
  const path = { fitting_id: server.id };
  const key = ["monitor", server.id];
  const query = useQuery({
    queryKey: key,
    queryFn: () => unwrap(api.GET("/api/fittings/{fitting_id}/monitor", { params: { path } })),
  });
  const meant = `${club} ${station}`;
  /** What this screen told it last, or found chosen: another screen's choice, before or since, is not talked over. */
  const [told, setTold] = useState(meant);
  const put = useMutation({
    mutationFn: (body: Schemas["MonitorIn"]) =>
      unwrap(api.PUT("/api/fittings/{fitting_id}/monitor", { params: { path }, body })),
    onSuccess: (found, body) => {
      setTold(`${body.club} ${body.swing}`);
      client.setQueryData(key, found);
      void client.invalidateQueries({ queryKey: ["devices", server.id] });
    },
  });
  const monitor = query.data;
  const wanted = monitor?.wanted === true;
  const elsewhere = wanted && (monitor.club !== club || monitor.swing !== station);
  const { mutate, isPending, isError, error, variables } = put;
  const refused = error instanceof RequestError && error.refused && `${variables?.club} ${variables?.swing}` === meant;
  // the next strikes belong to what is chosen here: told once, again where it was chosen anew meanwhile or no answer came
  useEffect(() => {
    if (wanted && !elsewhere) setTold(meant);
    if (!elsewhere || told === meant || refused || isPending) return;
    const timer = setTimeout(() => mutate({ wanted: true, club, swing: station }), isError ? AGAIN_MS : 0);
    return () => clearTimeout(timer);
  }, [wanted, elsewhere, told, meant, club, station, refused, isPending, isError, mutate]);
  if (!monitor) return null;
  return (
    <section className={classes.monitor} aria-label="Strike monitor">
      <State state={monitor.wanted ? monitor.state : "off"}>{words(monitor, hearing)}</State>
      {monitor.refused > 0 && (
        <span className={classes.refused}>
          {counted(monitor.refused, "line")} refused or flagged, the last: {monitor.last_refusal}
        </span>
      )}
      <Button
        size="xs"
        variant="default"
        disabled={!monitor.available || put.isPending}
        onClick={() => put.mutate({ wanted: !monitor.wanted, club, swing: station })}
      >
        {monitor.wanted ? "Stop the monitor" : "Connect the monitor"}
      </Button>
      {elsewhere && told === meant && (
        <span className={classes.elsewhere}>
          It listens for {listening(server.document, monitor)}.
          <Button size="xs" variant="default" onClick={() => mutate({ wanted: true, club, swing: station })}>
            Listen for this one
          </Button>
        </span>
      )}
      {put.isError && (
        <span role="alert" className={classes.refused}>
          {put.error.message}
        </span>
      )}
    </section>
  );
}

/** The club and the station that it listens for; a head of the rack, in a proof, is no club of the bag. */
function listening(document: FittingDocument, { club, swing }: Monitor) {
  const name = clubName(document, club);
  const station = stationsOf(document).find(([key]) => key === swing)?.[1] ?? swing;
  return `${name === club ? "another club" : name}, station ${station}`;
}

function words(monitor: Monitor, hearing: boolean) {
  if (!monitor.available) return "No strike monitor is set up: strikes are typed.";
  if (!monitor.wanted) return "Strike monitor off";
  if (!hearing) return "No word from the server: strikes are kept there and show when it is back";
  if (monitor.state === "lost") return "Strike monitor lost, trying again";
  if (monitor.state !== "live") return "Strike monitor: connecting";
  return `${monitor.device}, live${monitor.simulated ? ", simulated" : ""}: ${monitor.taken} taken`;
}
