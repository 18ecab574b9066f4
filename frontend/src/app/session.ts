import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, rememberToken, type Session, type Units, unwrap } from "../api/client";

const KEY = ["session"];

/** Who is signed in. */
export function useSession() {
  return useQuery({
    queryKey: KEY,
    queryFn: async () => {
      const session = await unwrap(api.GET("/api/session"));
      rememberToken(session.csrf_token);
      return session;
    },
  });
}

/** Sign in; everything fetched before is forgotten. */
export function useSignIn() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: { email: string; password: string }) => unwrap(api.POST("/api/session", { body })),
    onSuccess: (session) => {
      rememberToken(session.csrf_token);
      client.setQueryData(KEY, session);
    },
  });
}

/** Sign out. */
export function useSignOut() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => unwrap(api.DELETE("/api/session")),
    onSuccess: (session) => {
      rememberToken(session.csrf_token);
      client.clear();
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
      client.setQueryData<Session>(KEY, (session) => (session ? { ...session, units } : session));
    },
  });
}
