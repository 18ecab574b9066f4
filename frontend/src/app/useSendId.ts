import { useState } from "react";
import { v4 as newId } from "uuid";
import { same } from "../history/changes";
import { useRemembered } from "./useRemembered";

interface Sent {
  id: string;
  told: unknown;
}

/**
 * An id to send something under: the same while the same is sent, for it may have arrived the first time without an
 * answer; another once something else is sent, or once it is known to be there. `last` is what was sent before, `keep`
 * hears of what is now.
 */
export function sendIds(last: Sent | null = null, keep: (sent: Sent | null) => void = () => {}) {
  let now = last;
  const put = (sent: Sent | null) => {
    now = sent;
    keep(sent);
  };
  return {
    of: (told: unknown): string => {
      if (now !== null && same(now.told, told)) return now.id;
      const id = newId();
      put({ id, told });
      return id;
    },
    arrived: () => put(null),
  };
}

/** Ids of one part of a screen; the tab remembers the last one under its name, if it has one. */
export function useSendId(what = "") {
  const [last, keep] = useRemembered<Sent | null>(`sent-${what}`, null);
  return useState(() => (what === "" ? sendIds() : sendIds(last, keep)))[0];
}
