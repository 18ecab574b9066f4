import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, unwrap } from "../api/client";
import { useStore } from "../app/context";
import { useOnSaved } from "../app/useKeep";

export type Device = Schemas["DeviceOut"];
export type InstrumentKind = Schemas["ReadingDocument"]["kind"];

export const DEVICE_NAMES: Record<Device["kind"], string> = {
  monitor: "strike monitor",
  gauge: "gauge",
  hammer: "drop hammer",
  penetrometer: "penetrometer",
};

/** How every device of the fitting goes. */
export function useDevices() {
  const { server } = useStore();
  return useQuery({
    queryKey: ["devices", server.id],
    queryFn: () =>
      unwrap(api.GET("/api/fittings/{fitting_id}/devices", { params: { path: { fitting_id: server.id } } })),
  });
}

/** Want an instrument or not, and say what it reads next: a club or ground that is just being saved is waited for. */
export function useInstrument(kind: InstrumentKind) {
  const { server, saveState } = useStore();
  const onSaved = useOnSaved();
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["DeviceIn"]) => {
      const put = () =>
        unwrap(
          api.PUT("/api/fittings/{fitting_id}/devices/{kind}", {
            params: { path: { fitting_id: server.id, kind } },
            body,
          }),
        );
      // what is not saved for another reason keeps nobody from reading a club that is
      return body.wanted && ["waiting", "saving"].includes(saveState) ? onSaved(put) : put();
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ["devices", server.id] }),
  });
}

/** Readings of the fitting's instruments, and what they say of each club and ground. */
export function useReadings() {
  const { server } = useStore();
  return useQuery({
    queryKey: ["readings", server.id],
    queryFn: () =>
      unwrap(api.GET("/api/fittings/{fitting_id}/readings", { params: { path: { fitting_id: server.id } } })),
  });
}

/** A device's state in words. */
export function stateWords(device: Device, hearing: boolean): string {
  if (!device.available) return `no ${DEVICE_NAMES[device.kind]} is set up`;
  if (!device.wanted) return "off";
  if (!hearing) return "no word from the server; what is read is kept there";
  if (device.state === "lost") return "lost, trying again";
  if (device.state !== "live") return "connecting";
  return device.simulated ? "live, simulated" : "live";
}
