import classes from "./DeviceStates.module.css";
import { useHearing } from "./live";
import { DEVICE_NAMES, stateWords, useDevices } from "./useDevices";

/** Devices that are connected, in the strip: how they go, those by name that do not. */
export function DeviceStates() {
  const hearing = useHearing();
  const wanted = useDevices().data?.devices.filter((device) => device.wanted) ?? [];
  const live = wanted.filter((device) => hearing && device.state === "live");
  const others = wanted.filter((device) => !live.includes(device));
  if (wanted.length === 0) return null;
  const simulated = live.some((device) => device.simulated) ? ", simulated" : "";
  const only = live.length === 1 ? live[0] : undefined;
  return (
    <span className={classes.states} aria-label="Devices" role="status">
      {live.length > 0 && (
        <span data-state="live" title={live.map((device) => DEVICE_NAMES[device.kind]).join(", ")}>
          {only ? DEVICE_NAMES[only.kind] : `${live.length} devices`} live{simulated}
        </span>
      )}
      {others.map((device) => (
        <span key={device.kind} data-state={hearing ? device.state : "lost"}>
          {DEVICE_NAMES[device.kind]} {hearing ? stateWords(device, hearing) : "unheard"}
        </span>
      ))}
    </span>
  );
}
