import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { askAgain } from "../api/askAgain";
import { useStore } from "../app/context";

const RELOAD_MS = 1200;
const SHOWN = ["session", "monitor", "carries", "devices", "readings"];

/** Word of strikes, readings and devices as it comes: what shows them is asked again, the proposal a moment later. */
export function useLive(on: boolean): boolean {
  const { server, reload } = useStore();
  const client = useQueryClient();
  const [hearing, setHearing] = useState(false);
  const later = useRef<ReturnType<typeof setTimeout>>(undefined);
  const again = useRef(reload);
  again.current = reload;
  const id = server.id;
  useEffect(() => {
    if (!on) return;
    const source = new EventSource(`/api/fittings/${id}/live`);
    const look = () => {
      void askAgain(client, SHOWN, id);
      clearTimeout(later.current);
      later.current = setTimeout(() => again.current().catch(() => setHearing(false)), RELOAD_MS);
    };
    source.onopen = () => {
      setHearing(true);
      look(); // what came while nobody heard is looked up
    };
    source.onerror = () => setHearing(false); // the browser tries again by itself
    source.addEventListener("change", look);
    return () => {
      source.close();
      setHearing(false);
      clearTimeout(later.current);
    };
  }, [id, client, on]);
  return hearing;
}
