import { useState } from "react";
import { showLongDay } from "../units/days";
import { Clubs } from "./Clubs";
import { Far } from "./Far";
import { Lie } from "./Lie";
import { type Begun, NOT_BEGUN, Note } from "./Note";
import { Practise } from "./Practise";
import { usePage } from "./usePage";

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
  const { opened, problem, scores, unsent, shots, fate, deliver } = usePage(token);
  const [begun, setBegun] = useState<Begun>(NOT_BEGUN);
  const [tab, setTab] = useState<Tab>(() => TABS.find(([key]) => `#${key}` === location.hash)?.[0] ?? "far");
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
            fate={fate}
            begun={begun}
            onBegun={setBegun}
            onShot={deliver}
          />
        )}
        {tab === "practise" && (
          <Practise
            page={page}
            scores={scores}
            standings={opened.standings}
            token={token}
            unsent={unsent}
            fate={fate}
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
