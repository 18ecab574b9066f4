import { Button, Modal, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, importDocument, type Session, unwrap } from "../api/client";
import classes from "./Players.module.css";
import { useSignOut } from "./session";

const when = new Intl.DateTimeFormat("en-GB", { dateStyle: "medium", timeStyle: "short" });

export default function Players({ session }: { session: Session }) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const signOut = useSignOut();
  const file = useRef<HTMLInputElement>(null);
  const [name, setName] = useState("");
  const [removing, setRemoving] = useState<{ id: string; player_name: string } | null>(null);
  const list = useQuery({
    queryKey: ["fittings"],
    queryFn: () => unwrap(api.GET("/api/fittings")),
    staleTime: 0,
  });
  const opened = (fitting: { id: string }) => navigate(`/fittings/${fitting.id}/player`);
  const start = useMutation({
    mutationFn: (player_name: string) => unwrap(api.POST("/api/fittings", { body: { player_name } })),
    onSuccess: opened,
  });
  const load = useMutation({ mutationFn: importDocument, onSuccess: opened });
  const remove = useMutation({
    mutationFn: (id: string) =>
      unwrap(api.DELETE("/api/fittings/{fitting_id}", { params: { path: { fitting_id: id } } })),
    onSuccess: () => {
      setRemoving(null);
      client.invalidateQueries({ queryKey: ["fittings"] });
    },
  });

  const submit = (event: FormEvent) => {
    event.preventDefault();
    start.mutate(name);
  };

  const chosen = async (files: FileList | null) => {
    const picked = files?.[0];
    if (picked) load.mutate(await picked.text());
    if (file.current) file.current.value = "";
  };

  const failure = start.error ?? load.error ?? remove.error;
  return (
    <main className={classes.page}>
      <header className={classes.head}>
        <span className={classes.mark}>Oblatus</span>
        <span className={classes.quiet}>{session.studio}</span>
        <span className={classes.grow} />
        <Link to="/desk" className={classes.quiet}>
          Shot desk
        </Link>
        <span className={classes.quiet}>{session.fitter}</span>
        <Button variant="default" size="xs" onClick={() => signOut.mutate()}>
          Sign out
        </Button>
      </header>
      <form className={classes.start} onSubmit={submit}>
        <TextInput
          label="New player"
          placeholder="Name"
          required
          withAsterisk={false}
          autoFocus
          maxLength={120}
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <Button type="submit" loading={start.isPending}>
          Start fitting
        </Button>
        <Button variant="default" onClick={() => file.current?.click()} loading={load.isPending}>
          Load from a file
        </Button>
        <input
          ref={file}
          type="file"
          accept="application/json,.json"
          aria-label="Fitting document"
          className="visually-hidden"
          tabIndex={-1}
          onChange={(e) => chosen(e.currentTarget.files)}
        />
      </form>
      {failure && <Failure error={failure} />}
      <section aria-label="Players">
        {list.isPending && <div className={classes.skeleton} />}
        {list.isError && <p role="alert">{list.error.message}</p>}
        {list.data?.fittings.length === 0 && (
          <p className={classes.empty}>No player yet. Type a name above and press Enter to start the first fitting.</p>
        )}
        <ul className={classes.list}>
          {list.data?.fittings.map((line) => (
            <li key={line.id} className={classes.row}>
              <Link to={`/fittings/${line.id}/player`} className={classes.name}>
                {line.player_name}
              </Link>
              <span className={classes.quiet}>changed {when.format(new Date(line.updated_at))}</span>
              <Button variant="subtle" size="xs" color="rust.6" onClick={() => setRemoving(line)}>
                Remove
              </Button>
            </li>
          ))}
        </ul>
      </section>
      <Modal opened={removing !== null} onClose={() => setRemoving(null)} title={`Remove ${removing?.player_name}?`}>
        <p>
          Everything about this player goes, with all kept proposals. Nothing brings it back: save it to a file first.
        </p>
        <div className={classes.choices}>
          <Button variant="default" onClick={() => setRemoving(null)} data-autofocus>
            Keep
          </Button>
          <Button color="rust.6" loading={remove.isPending} onClick={() => removing && remove.mutate(removing.id)}>
            Remove for good
          </Button>
        </div>
      </Modal>
    </main>
  );
}

function Failure({
  error,
}: {
  error: Error & { body?: { faults?: { field: string; message: string; value: string }[] } | null };
}) {
  const faults = error.body?.faults ?? [];
  return (
    <div role="alert" className={classes.failure}>
      <strong>Nothing was saved.</strong>
      {faults.length === 0 && <span> {error.message}</span>}
      <ul>
        {faults.slice(0, 8).map((fault) => (
          <li key={fault.field + fault.message}>
            {fault.field}
            {fault.value && ` = ${fault.value}`}: {fault.message}
          </li>
        ))}
      </ul>
    </div>
  );
}
