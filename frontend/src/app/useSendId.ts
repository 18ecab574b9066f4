import { useState } from "react";
import { v4 as newId } from "uuid";
import { same } from "../history/changes";

/**
 * An id to send something under: the same while the same is sent, for it may have arrived the first time without an
 * answer; another once something else is sent, or once it is known to be there.
 */
export function sendIds() {
  let last: { id: string; told: unknown } | null = null;
  return {
    of: (told: unknown): string => {
      if (last === null || !same(last.told, told)) last = { id: newId(), told };
      return last.id;
    },
    arrived: () => {
      last = null;
    },
  };
}

/** Ids of one part of a screen. */
export const useSendId = () => useState(sendIds)[0];
