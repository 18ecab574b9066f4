import { Button, PasswordInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { api, RequestError, unwrap } from "../api/client";
import { lastFailure } from "../api/lastFailure";
import { SignOut } from "../session/SignOut";
import { useStanding } from "../session/session";
import { showMoment } from "../units/days";
import classes from "./Account.module.css";

/** The fitter's own page: where they are signed in, and another password. */
export default function Account({ onLeave }: { onLeave: () => void }) {
  const { session } = useStanding();
  return (
    <main className={classes.page}>
      <header className={classes.head}>
        <Link to="/" className={classes.mark}>
          Oblatus
        </Link>
        <span className={classes.quiet}>{session.studio}</span>
        <span className={classes.grow} />
        <SignOut onLeave={onLeave} />
      </header>
      <h1>{session.fitter}</h1>
      <p className={classes.quiet}>{session.email}</p>
      {session.demo && (
        <p className={classes.notice}>
          This is the published demo sign-in. It works on the machine that serves only; a password of your own works
          from everywhere.
        </p>
      )}
      <Sessions />
      <Password />
    </main>
  );
}

function Sessions() {
  const client = useQueryClient();
  const list = useQuery({
    queryKey: ["session-list"],
    queryFn: () => unwrap(api.GET("/api/session/list")),
  });
  const again = () => client.invalidateQueries({ queryKey: ["session-list"] });
  const end = useMutation({
    mutationFn: (session_id: string) =>
      unwrap(api.DELETE("/api/session/list/{session_id}", { params: { path: { session_id } } })),
    onSettled: again,
  });
  const others = useMutation({ mutationFn: () => unwrap(api.DELETE("/api/session/others")), onSettled: again });
  const failure = lastFailure(end, others) ?? list.error;
  const sessions = list.data?.sessions ?? [];
  return (
    <section aria-labelledby="where">
      <h2 id="where">Where you are signed in</h2>
      {failure && (
        <p role="alert" className={classes.fault}>
          {failure.message}
        </p>
      )}
      <ul className={classes.list}>
        {sessions.map((one) => (
          <li key={one.id}>
            <span className={classes.browser}>
              <strong>{one.browser}</strong>
              {one.this && <em>this browser</em>}
            </span>
            <span className={classes.quiet}>
              from {one.address}, signed in {showMoment(one.created_at)}, last seen {showMoment(one.seen_at)}
            </span>
            {!one.this && (
              <Button size="xs" variant="default" onClick={() => end.mutate(one.id)}>
                End
              </Button>
            )}
          </li>
        ))}
      </ul>
      {sessions.length > 1 && (
        <Button variant="default" loading={others.isPending} onClick={() => others.mutate()}>
          End the {sessions.length - 1 === 1 ? "other one" : `other ${sessions.length - 1}`}
        </Button>
      )}
    </section>
  );
}

function Password() {
  const [old, setOld] = useState("");
  const [next, setNext] = useState("");
  const client = useQueryClient();
  const change = useMutation({
    mutationFn: () => unwrap(api.PUT("/api/session/password", { body: { old, new: next } })),
    onSuccess: () => {
      setOld("");
      setNext("");
      void client.invalidateQueries({ queryKey: ["session"] });
      void client.invalidateQueries({ queryKey: ["session-list"] });
    },
  });
  const faults = change.error instanceof RequestError ? (change.error.body?.faults ?? []) : [];
  const at = (field: string) => faults.find((fault) => fault.field === field)?.message;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    change.mutate();
  };
  return (
    <section aria-labelledby="password">
      <h2 id="password">Another password</h2>
      <form className={classes.form} onSubmit={submit}>
        <PasswordInput
          label="Present password"
          autoComplete="current-password"
          required
          withAsterisk={false}
          value={old}
          error={at("old")}
          onChange={(e) => setOld(e.currentTarget.value)}
        />
        <PasswordInput
          label="New password"
          description="10 characters or more"
          autoComplete="new-password"
          required
          withAsterisk={false}
          value={next}
          error={at("new")}
          onChange={(e) => setNext(e.currentTarget.value)}
        />
        {change.isError && faults.length === 0 && (
          <p role="alert" className={classes.fault}>
            {change.error.message}
          </p>
        )}
        <Button type="submit" loading={change.isPending}>
          Change the password
        </Button>
        {change.isSuccess && <p role="status">Changed. Every other session has ended.</p>}
      </form>
    </section>
  );
}
