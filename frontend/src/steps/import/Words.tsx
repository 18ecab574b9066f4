import { useStore } from "../../app/context";
import { clubsOf, stationsOf } from "../../strikes/clubs";
import classes from "./Import.module.css";
import { type Draft, type Look, unmapped } from "./mapping";

interface Props {
  look: Look;
  draft: Draft;
  onChange: (draft: Draft) => void;
}

const OUT = "-";

/** What the file's words for clubs and swings mean here; without such a column, the one club and swing of all rows. */
export function Words({ look, draft, onChange }: Props) {
  const { server } = useStore();
  const fields = new Set(Object.values(draft.uses).map((use) => use.field));
  const clubs = clubsOf(server.document).map((c) => [c.value, c.label] as const);
  const swings = stationsOf(server.document);
  return (
    <div className={classes.words}>
      <Group
        title="Club"
        words={fields.has("club") ? look.club_words : null}
        known={draft.clubs}
        options={clubs}
        usual={draft.club}
        onWord={(word, code) => onChange({ ...draft, clubs: put(draft.clubs, word, code) })}
        onUsual={(club) => onChange({ ...draft, club })}
      />
      <Group
        title="Swing"
        words={fields.has("swing") ? look.swing_words : null}
        known={draft.swings}
        options={swings}
        usual={draft.swing}
        onWord={(word, code) => onChange({ ...draft, swings: put(draft.swings, word, code) })}
        onUsual={(swing) => onChange({ ...draft, swing: swing ?? "full" })}
      />
    </div>
  );
}

interface GroupProps {
  title: string;
  words: readonly string[] | null;
  known: Record<string, string | null>;
  options: readonly (readonly [string, string])[];
  usual: string | null;
  onWord: (word: string, code: string | null | undefined) => void;
  onUsual: (code: string | null) => void;
}

function Group({ title, words, known, options, usual, onWord, onUsual }: GroupProps) {
  const open = words ? unmapped(words, known).length : 0;
  return (
    <fieldset>
      <legend>
        {title}
        {words && open > 0 && <b> {open === 1 ? "one word means" : `${open} words mean`} nothing yet</b>}
      </legend>
      {words === null && (
        <label>
          <span>of every row</span>
          <select
            aria-label={`${title} of every row`}
            value={usual ?? ""}
            onChange={(event) => onUsual(event.currentTarget.value || null)}
          >
            {usual === null && <option value="">which?</option>}
            {options.map(([value, label]) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        </label>
      )}
      {words?.map((word) => (
        <label key={word}>
          <span>{word}</span>
          <select
            aria-label={`What ${word} means`}
            value={word in known ? (known[word] ?? OUT) : ""}
            data-open={!(word in known)}
            onChange={(event) => {
              const picked = event.currentTarget.value;
              onWord(word, picked === "" ? undefined : picked === OUT ? null : picked);
            }}
          >
            <option value="">which?</option>
            {options.map(([value, label]) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
            <option value={OUT}>leave these rows out</option>
          </select>
        </label>
      ))}
    </fieldset>
  );
}

function put(known: Record<string, string | null>, word: string, code: string | null | undefined) {
  const { [word]: _, ...others } = known;
  return code === undefined ? others : { ...others, [word]: code };
}
