import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, type ReactNode, useContext, useEffect, useState } from "react";
import { againAfter } from "../api/again";
import {
  api,
  become,
  NO_ANSWER,
  onSessionEnd,
  RequestError,
  type Session,
  signIn,
  type Units,
  unwrap,
} from "../api/client";
import { forgetRemembered } from "../app/useRemembered";
import { forgetCache } from "../offline/cache";
import { hearTabs, lastWho, rememberWho, tellTabs } from "./who";

const KEY = ["session"];
const AGAIN_MS = 5000;

/** Why the page cannot act at the moment: nobody is signed in any more, or somebody else is. */
export type Ended = "signed_out" | "other_fitter";

interface Standing {
  session: Session;
  ended: Ended | null;
  /** Counts up whenever the same fitter is signed in again: what waited is tried at once. */
  round: number;
}

const Context = createContext<Standing | null>(null);

/** Who works on this page, and whether the session still stands. */
export function useStanding(): Standing {
  const found = useContext(Context);
  if (!found) throw new Error("useStanding outside a session");
  return found;
}

/** The fitter of this page. */
export const useFitterId = () => useStanding().session.fitter_id ?? "";

/** Who is signed in; without a connection, who was last. */
export function useSession() {
  return useQuery({
    queryKey: KEY,
    queryFn: async ({ signal }) => {
      try {
        const session = await unwrap(api.GET("/api/session", { signal }));
        if (session.fitter_id) rememberWho(session);
        return session;
      } catch (error) {
        const last = lastWho();
        if (error instanceof RequestError && error.status === NO_ANSWER && last) return last;
        throw error;
      }
    },
    // a page that was opened without a connection has no token yet
    refetchInterval: (query) => (query.state.data?.csrf_token === "" ? AGAIN_MS : againAfter(query)),
  });
}

/** Keeps the page as it stands when the session ends, in this tab or in another. */
export function SessionProvider({ session, children }: { session: Session; children: ReactNode }) {
  const client = useQueryClient();
  const [mine, setMine] = useState(session);
  const [ended, setEnded] = useState<Ended | null>(null);
  const [round, setRound] = useState(0);
  become({ token: mine.csrf_token, fitter: mine.fitter_id });

  useEffect(() => {
    onSessionEnd(setEnded);
    return () => onSessionEnd(() => {});
  }, []);

  // what the server says of the session: the same fitter goes on, another one does not take over this page
  useEffect(() => {
    if (session.fitter_id === mine.fitter_id) {
      if (session === mine) return;
      become({ token: session.csrf_token, fitter: session.fitter_id });
      setMine(session);
      if (session.csrf_token !== "") {
        setEnded(null);
        setRound((n) => n + 1);
        // what was refused meanwhile is asked again
        void client.refetchQueries({ predicate: (query) => query.state.status === "error" });
      }
    } else setEnded(session.fitter_id ? "other_fitter" : "signed_out");
  }, [session, mine, client]);

  useEffect(
    () =>
      hearTabs((word) => {
        if (word.kind === "out") setEnded("signed_out");
        else void client.invalidateQueries({ queryKey: KEY });
      }),
    [client],
  );

  return <Context.Provider value={{ session: mine, ended, round }}>{children}</Context.Provider>;
}

/** Sign in; the page that is open goes on if it is the same fitter's. */
export function useSignIn() {
  const client = useQueryClient();
  return useMutation({
    // what was asked as nobody is answered as nobody: after the sign-in that would end it again
    mutationFn: async (body: Parameters<typeof signIn>[0]) => {
      await client.cancelQueries({ queryKey: KEY });
      return signIn(body);
    },
    onSuccess: async (session) => {
      await client.cancelQueries({ queryKey: KEY });
      rememberWho(session);
      client.setQueryData(KEY, session);
      if (session.fitter_id) tellTabs({ kind: "in", fitter: session.fitter_id });
    },
  });
}

/** Sign out: the session ends on the server, in every tab; what this browser holds of the studio is forgotten. */
export function useSignOut(onLeave: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => unwrap(api.DELETE("/api/session")),
    onSuccess: async (session) => {
      const last = lastWho();
      // a browser that keeps nothing has nothing to forget
      if (last?.fitter_id) await forgetCache(last.fitter_id).catch(() => {});
      if (last?.fitter_id) forgetRemembered(last.fitter_id);
      rememberWho(null);
      tellTabs({ kind: "out" });
      client.clear();
      become({ token: session.csrf_token, fitter: null });
      onLeave();
      client.setQueryData(KEY, session);
    },
  });
}

/** Set the units of this fitter. */
export function useSetUnits() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Units) => unwrap(api.PUT("/api/session/units", { body })),
    onMutate: (units) => {
      const before = client.getQueryData<Session>(KEY);
      client.setQueryData<Session>(KEY, (session) => (session ? { ...session, units } : session));
      return before?.units;
    },
    // sentences of the server stay in the units before: nothing on the page is to be in others
    onError: (_error, _units, before) => {
      if (before) client.setQueryData<Session>(KEY, (session) => (session ? { ...session, units: before } : session));
    },
    // sentences come worded in the reader's units; an open fitting is read again by its own page, which has edits on it
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ["fitting"], refetchType: "none" });
      await client.invalidateQueries({
        predicate: (query) => !["fitting", KEY[0]].includes(String(query.queryKey[0])),
      });
    },
  });
}
