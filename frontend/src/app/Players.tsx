import { Button, Modal, NativeSelect, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, importDocument, type Schemas, type Session, unwrap } from "../api/client";
import { textOf } from "../api/files";
import { lastFailure } from "../api/lastFailure";
import { TABLES } from "../api/tables";
import { SignOut } from "../session/SignOut";
import { showDay, showMoment } from "../units/days";
import { Newer } from "./Newer";
import classes from "./Players.module.css";
import { useSendId } from "./useSendId";
import { useWord } from "./useWord";

type Order = "changed" | "name" | "kept" | "due";

/** The list by name, by what was kept last or is due first; as it comes it is by the last change. */
function inOrder(lines: Schemas["FittingLine"][], order: Order) {
  if (order === "name") return [...lines].sort((a, b) => a.player_name.localeCompare(b.player_name));
  if (order === "kept") return [...lines].sort((a, b) => (b.kept_at ?? "").localeCompare(a.kept_at ?? ""));
  if (order === "due") return [...lines].sort((a, b) => (a.due_on ?? "9").localeCompare(b.due_on ?? "9"));
  return lines;
}

export default function Players({ session, onLeave }: { session: Session; onLeave: () => void }) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [name, setName] = useState("");
  const [removing, setRemoving] = useState<{ id: string; player_name: string } | null>(null);
  const list = useQuery({
    queryKey: ["fittings"],
    queryFn: () => unwrap(api.GET("/api/fittings")),
  });
  useWord(session.fitter_id ?? "");
  const [sought, setSought] = useState("");
  const [order, setOrder] = useState<Order>("changed");
  const fittings = list.data?.fittings ?? [];
  const shown = inOrder(
    fittings.filter((line) => line.player_name.toLowerCase().includes(sought.trim().toLowerCase())),
    order,
  );
  const starting = useSendId();
  const loading = useSendId();
  // told at the press: whoever opened another player meanwhile stays there
  const opened = (fitting: { id: string }) => navigate(`/fittings/${fitting.id}/player`);
  const start = useMutation({
    mutationFn: (player_name: string) =>
      unwrap(api.POST("/api/fittings", { body: { player_name, id: starting.of(player_name) } })),
    onSuccess: starting.arrived,
  });
  const load = useMutation({
    mutationFn: async (picked: File) => {
      const text = await textOf(picked);
      return importDocument(text, loading.of(text));
    },
    onSuccess: loading.arrived,
  });
  const remove = useMutation({
    mutationFn: (id: string) =>
      unwrap(api.DELETE("/api/fittings/{fitting_id}", { params: { path: { fitting_id: id } } })),
    onSuccess: () => {
      setRemoving(null);
      client.invalidateQueries({ queryKey: ["fittings"] });
    },
  });
  const bin = useQuery({
    queryKey: ["fittings", "bin"],
    queryFn: () => unwrap(api.GET("/api/fittings/bin")),
  });

  const submit = (event: FormEvent) => {
    event.preventDefault();
    start.mutate(name, { onSuccess: opened });
  };

  const chosen = (files: FileList | null) => {
    const picked = files?.[0];
    if (picked) load.mutate(picked, { onSuccess: opened });
    if (file.current) file.current.value = "";
  };

  const failure = lastFailure(start, load, remove);
  return (
    <main className={classes.page}>
      <header className={classes.head}>
        <h1 className={classes.mark}>Oblatus</h1>
        <span className={classes.quiet}>{session.studio}</span>
        <span className={classes.grow} />
        <Link to="/claims" className={classes.quiet}>
          Our claims
        </Link>
        <Link to="/desk" className={classes.quiet}>
          Shot desk
        </Link>
        <Link to="/account" className={classes.quiet}>
          {session.fitter}
        </Link>
        <SignOut onLeave={onLeave} />
      </header>
      <Newer />
      <form className={classes.start} onSubmit={submit}>
        <TextInput
          label="New player"
          placeholder="Name"
          required
          withAsterisk={false}
          autoFocus
          maxLength={TABLES.most.name}
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
        {fittings.length > 1 && (
          <div className={classes.find}>
            <TextInput
              label="Find a player"
              type="search"
              value={sought}
              onChange={(e) => setSought(e.currentTarget.value)}
            />
            <NativeSelect
              label="In order of"
              value={order}
              data={[
                { value: "changed", label: "last change" },
                { value: "name", label: "name" },
                { value: "kept", label: "last kept set" },
                { value: "due", label: "what is due" },
              ]}
              onChange={(e) => setOrder(e.currentTarget.value as Order)}
            />
            <span role="status" className={classes.quiet}>
              {shown.length === fittings.length ? "" : `${shown.length} of ${fittings.length} players`}
            </span>
          </div>
        )}
        <ul className={classes.list}>
          {shown.map((line) => (
            <li key={line.id} className={classes.row}>
              <Link to={`/fittings/${line.id}/player`} className={classes.name}>
                {line.player_name}
              </Link>
              <span className={classes.about}>
                {line.kept_at ? (
                  <span>
                    kept {showDay(line.kept_at)}: {line.kept_clubs.join(", ")}
                  </span>
                ) : (
                  <span>nothing kept yet</span>
                )}
                {line.due_on && (
                  <span data-late={line.due_late} className={classes.due}>
                    {line.due_words}: due {line.due_late && "since "}
                    {showDay(line.due_on)}
                  </span>
                )}
                {line.followed && <span>a later fitting follows</span>}
                <span>changed {showMoment(line.updated_at)}</span>
              </span>
              <Button variant="subtle" size="xs" color="rust" onClick={() => setRemoving(line)}>
                Remove
              </Button>
            </li>
          ))}
        </ul>
      </section>
      {bin.data && bin.data.fittings.length > 0 && <Bin lines={bin.data.fittings} />}
      <Modal opened={removing !== null} onClose={() => setRemoving(null)} title={`Remove ${removing?.player_name}?`}>
        <p>
          Everything about this player goes into the bin, with all kept proposals, strikes and photos. It can be brought
          back for thirty days, and goes for good then. A file keeps it for longer:{" "}
          <a href={`/api/fittings/${removing?.id}/export`} download>
            save it to a file
          </a>
          .
        </p>
        <div className={classes.choices}>
          <Button variant="default" onClick={() => setRemoving(null)} data-autofocus>
            Keep
          </Button>
          <Button color="rust" loading={remove.isPending} onClick={() => removing && remove.mutate(removing.id)}>
            Remove
          </Button>
        </div>
      </Modal>
    </main>
  );
}

/** Players that were removed: until when each can be brought back. */
function Bin({ lines }: { lines: Schemas["BinLine"][] }) {
  const client = useQueryClient();
  const again = () => client.invalidateQueries({ queryKey: ["fittings"] });
  const [sure, setSure] = useState<string | null>(null);
  const back = useMutation({
    mutationFn: (fitting_id: string) =>
      unwrap(api.POST("/api/fittings/bin/{fitting_id}/back", { params: { path: { fitting_id } } })),
    onSuccess: again,
  });
  const gone = useMutation({
    mutationFn: (fitting_id: string) =>
      unwrap(api.DELETE("/api/fittings/bin/{fitting_id}", { params: { path: { fitting_id } } })),
    onSuccess: again,
  });
  const failure = lastFailure(back, gone);
  return (
    <section aria-label="Bin" className={classes.bin}>
      <h2>Removed</h2>
      {failure && <Failure error={failure} />}
      <ul className={classes.list}>
        {lines.map((line) => (
          <li key={line.id} className={classes.row}>
            <span className={classes.name}>{line.player_name}</span>
            <span className={classes.quiet}>gone for good on {showDay(line.gone_on)}</span>
            <Button size="xs" variant="default" onClick={() => back.mutate(line.id)}>
              Bring back
            </Button>
            {sure === line.id ? (
              <Button size="xs" color="rust" onClick={() => gone.mutate(line.id)}>
                For good: nothing brings it back
              </Button>
            ) : (
              <Button size="xs" variant="subtle" color="rust" onClick={() => setSure(line.id)}>
                Remove now
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
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
      {faults.length > 0 ? <strong>Nothing was saved.</strong> : <span>{error.message}</span>}
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
