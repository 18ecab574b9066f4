import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { askAgain } from "../api/askAgain";
import { useStore } from "../app/context";
import { useStanding } from "../session/session";
import { type Change, openLine } from "./line";

const RELOAD_MS = 1200;
const SHOWN = ["session-summary", "monitor", "carries", "devices", "readings", "build", "log", "after", "timeline"];

/** Word of strikes, readings, devices and other people's edits as it comes: what shows them is asked again. */
export function useLive(): boolean {
  const { server, reload } = useStore();
  const { session, ended } = useStanding();
  const fitter = session.fitter_id ?? "";
  const client = useQueryClient();
  const [hearing, setHearing] = useState(false);
  const later = useRef<ReturnType<typeof setTimeout>>(undefined);
  const now = useRef({ reload, revision: server.revision });
  now.current = { reload, revision: server.revision };
  const id = server.id;
  useEffect(() => {
    if (ended !== null) return;
    const read = (wait: number, upTo?: number) => {
      clearTimeout(later.current);
      later.current = setTimeout(() => now.current.reload(upTo).catch(() => setHearing(false)), wait);
    };
    const look = ({ fitting, revision }: Change) => {
      if (fitting !== null && fitting !== id) return;
      // somebody else edited it, or this page, whose answer is still on its way
      if (revision > now.current.revision) read(0, revision);
      if (revision > 0) return;
      void askAgain(client, SHOWN, id);
      read(RELOAD_MS);
    };
    const close = openLine(fitter, look, setHearing, () => void client.invalidateQueries({ queryKey: ["session"] }));
    return () => {
      close();
      setHearing(false);
      clearTimeout(later.current);
    };
  }, [id, client, fitter, ended]);
  return hearing;
}
