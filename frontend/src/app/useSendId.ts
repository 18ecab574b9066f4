import { useRef } from "react";
import { v4 as newId } from "uuid";
import { same } from "../history/changes";

/**
 * An id to send something under: the same while the same is sent, for it may have arrived the first time without an
 * answer; another once something else is sent, or once it is known to be there.
 */
export function useSendId() {
  const last = useRef<{ id: string; told: unknown } | null>(null);
  return {
    of: (told: unknown): string => {
      if (last.current === null || !same(last.current.told, told)) last.current = { id: newId(), told };
      return last.current.id;
    },
    arrived: () => {
      last.current = null;
    },
  };
}
