import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { askAgain } from "../api/askAgain";
import { RequestError } from "../api/client";
import { inTurns } from "../api/inTurns";
import { useStore } from "../app/context";
import { useStanding } from "../session/session";
import { type Change, openLine } from "./line";

const QUIET_MS = 1200;
const LONGEST_MS = 10_000;
const AGAIN_MS = 3000;
/** What is the studio's, whatever fitting is open. */
const STUDIO = ["rack", "prices", "venues"];
const SHOWN = [
  "session-summary",
  "monitor",
  "carries",
  "devices",
  "readings",
  "build",
  "log",
  "after",
  "timeline",
  "proofs",
  "kept",
  "handovers",
];

/**
 * Word of strikes, readings, devices, the studio's rack and other people's edits as it comes: what shows them is asked again. Each question
 * waits for the answer before it, so that a screen goes on also where strikes come faster than answers. `hearing` says
 * whether word comes in, `coming` whether it came of strikes or the rack, and the fitting is not read again yet.
 */
export function useLive(): { hearing: boolean; coming: boolean } {
  const { server, reload } = useStore();
  const { session, ended } = useStanding();
  const fitter = session.fitter_id ?? "";
  const client = useQueryClient();
  const [hearing, setHearing] = useState(false);
  /** Whether the last reading of the fitting failed: the line may be there, and the screen is old all the same. */
  const [unread, setUnread] = useState(false);
  const [coming, setComing] = useState(false);
  const later = useRef<ReturnType<typeof setTimeout>>(undefined);
  const now = useRef({ reload, revision: server.revision });
  now.current = { reload, revision: server.revision };
  const id = server.id;
  const askers = useMemo(() => SHOWN.map((name) => inTurns(() => askAgain(client, [name], id))), [client, id]);
  useEffect(() => {
    if (ended !== null) return;
    let open = true;
    let due: number | null = null; // the proposal waits for a pause, and no longer than this
    let struck = false; // no revision tells of strikes or the rack: known at one or not, it is read
    const read = (wait: number, upTo?: number) => {
      clearTimeout(later.current);
      due ??= performance.now() + LONGEST_MS;
      struck ||= upTo === undefined;
      const act = () => {
        due = null;
        const known = struck ? undefined : upTo;
        struck = false;
        now.current.reload(known).then(
          () => {
            setUnread(false);
            if (due === null) setComing(false);
          },
          (error) => {
            setUnread(true);
            if (open && !(error instanceof RequestError && error.refused)) read(AGAIN_MS, known);
          },
        );
      };
      later.current = setTimeout(act, Math.min(wait, Math.max(due - performance.now(), 0)));
    };
    const look = ({ fitting, revision }: Change) => {
      if (fitting !== null && fitting !== id) return;
      // somebody else edited it, or this page, whose answer is still on its way
      if (revision > now.current.revision) read(0, revision);
      if (revision > 0) return;
      if (fitting === null) for (const name of STUDIO) void client.invalidateQueries({ queryKey: [name] });
      // after a break in the line nothing that was on its way is waited for
      if (fitting === null) void askAgain(client, SHOWN, id);
      else for (const ask of askers) void ask();
      setComing(true);
      read(QUIET_MS);
    };
    const close = openLine(fitter, look, setHearing, () => void client.invalidateQueries({ queryKey: ["session"] }));
    return () => {
      open = false;
      close();
      setHearing(false);
      setComing(false);
      clearTimeout(later.current);
    };
  }, [id, client, fitter, ended, askers]);
  return { hearing: hearing && !unread, coming };
}
