import { local } from "./texts";

const DEEDS = "oblatus-deeds-";

/** Under which names a tab keeps what a fitter did. */
export const deedsOf = (fitter: string) => `${DEEDS}${fitter}-`;

/** Forget the deeds that tabs of earlier versions kept where they stay when the tab is closed: they take the room of drafts. */
export function forgetStayingDeeds() {
  for (const name of local.names(DEEDS)) local.drop(name);
}
