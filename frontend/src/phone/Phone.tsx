import { useCallback, useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { showLongDay } from "../units/days";
import { Clubs } from "./Clubs";
import { Far } from "./Far";
import { Lie } from "./Lie";
import { type Begun, NOT_BEGUN, Note } from "./Note";
import { type Score, type Shot, send, waiting } from "./outbox";
import { Practise } from "./Practise";

export type Opened = Schemas["PageOut"];
export type Page = Opened["page"];

const TABS = [
  ["far", "How far"],
  ["lie", "My lie"],
  ["practise", "Practise"],
  ["clubs", "Clubs"],
  ["note", "Note"],
] as const;
type Tab = (typeof TABS)[number][0];

/** The player's page: one of its parts at a time, all of it in the phone after the first visit. */
export function Phone({ token }: { token: string }) {
  const [opened, setOpened] = useState<Opened | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const [unsent, setUnsent] = useState<Score[]>(() => waiting("scores", token));
  const [shots, setShots] = useState<Shot[]>(() => waiting("shots", token));
  const [begun, setBegun] = useState<Begun>(NOT_BEGUN);
  const [tab, setTab] = useState<Tab>(() => TABS.find(([key]) => `#${key}` === location.hash)?.[0] ?? "far");
  const read = useCallback(
    async (anew = false) => {
      try {
        const reply = await fetch(`/api/page/${token}`, anew ? { cache: "reload" } : {});
        const body = await reply.json();
        if (reply.ok) {
          setOpened(body as Opened);
          setProblem(null);
        } else setProblem((body as { message: string }).message);
      } catch {
        setProblem((before) => before ?? "There is no connection, and this phone has not kept the page yet.");
      }
    },
    [token],
  );
  const look = useCallback(() => {
    setUnsent(waiting("scores", token));
    setShots(waiting("shots", token));
    return waiting("scores", token).length + waiting("shots", token).length;
  }, [token]);
  // one at a time: what comes meanwhile goes with the next
  const sending = useRef(false);
  const deliver = useCallback(async () => {
    if (look() === 0 || sending.current) return;
    sending.current = true;
    try {
      let words: string | null = null;
      while (look() > 0 && words === null) words = await send(token);
      setRefusal(words);
      if (words === null) await read(true);
    } catch {
      setRefusal(null); // no connection: they wait
    } finally {
      sending.current = false;
      look();
    }
  }, [token, read, look]);
  useEffect(() => {
    void read();
    void deliver();
    const again = () => void deliver();
    window.addEventListener("online", again);
    return () => window.removeEventListener("online", again);
  }, [read, deliver]);
  if (!opened)
    return (
      <main className="alone">
        <p className="mark">Oblatus</p>
        <p role="status">{problem ?? "Opening …"}</p>
      </main>
    );
  const { page } = opened;
  const go = (next: Tab) => {
    setTab(next);
    history.replaceState(null, "", `#${next}`);
    window.scrollTo(0, 0);
  };
  return (
    <>
      <header>
        <span className="mark">Oblatus</span>
        <span>
          {page.card.player}, {showLongDay(page.made_on)}
        </span>
      </header>
      {opened.newer && (
        <p className="told">The studio has made you a newer page since. Ask for its link; this one stays as it was.</p>
      )}
      {opened.gone.length > 0 && (
        <p className="told">
          The studio does not have {opened.gone.join(" and ")} in your bag any more. This page is as it was handed over.
        </p>
      )}
      <main>
        {tab === "far" && <Far page={page} />}
        {tab === "lie" && <Lie page={page} />}
        {tab === "note" && (
          <Note
            opened={opened}
            token={token}
            unsent={shots}
            refusal={refusal}
            begun={begun}
            onBegun={setBegun}
            onShot={deliver}
          />
        )}
        {tab === "practise" && (
          <Practise
            page={page}
            scores={opened.scores}
            standings={opened.standings}
            token={token}
            unsent={unsent}
            refusal={refusal}
            onScore={deliver}
          />
        )}
        {tab === "clubs" && <Clubs page={page} dates={opened.dates} token={token} expires={opened.expires_at} />}
      </main>
      <nav aria-label="Parts of this page">
        {TABS.map(([key, name]) => (
          <button key={key} type="button" aria-current={tab === key ? "page" : undefined} onClick={() => go(key)}>
            {name}
          </button>
        ))}
      </nav>
    </>
  );
}

/** A few words, one of them chosen. */
export function Pick({
  label,
  options,
  value,
  onPick,
}: {
  label: string;
  options: readonly (readonly [string, string])[];
  value: string;
  onPick: (value: string) => void;
}) {
  return (
    <div className="pick" role="radiogroup" aria-label={label}>
      {options.map(([key, name]) => (
        <button key={key} type="button" role="radio" aria-checked={key === value} onClick={() => onPick(key)}>
          {name}
        </button>
      ))}
    </div>
  );
}
