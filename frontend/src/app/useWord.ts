import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { inTurns } from "../api/inTurns";
import { openLine } from "../devices/line";

const QUIET_MS = 3000;

/** Word of whatever changes in the studio: the list of players is asked for again, a while later, for all that came. */
export function useWord(fitter: string): void {
  const client = useQueryClient();
  useEffect(() => {
    const ask = inTurns(() => client.invalidateQueries({ queryKey: ["fittings"] }));
    let timer: ReturnType<typeof setTimeout> | undefined;
    const soon = () => {
      timer ??= setTimeout(() => {
        timer = undefined;
        void ask();
      }, QUIET_MS);
    };
    const close = openLine(
      fitter,
      soon,
      () => {},
      () => void client.invalidateQueries({ queryKey: ["session"] }),
    );
    return () => {
      clearTimeout(timer);
      close();
    };
  }, [client, fitter]);
}
