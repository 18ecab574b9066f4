import classes from "./parts.module.css";

export type Source = "measured" | "typed" | "copied" | "earlier" | "assumed";
type Own = Exclude<Source, "copied" | "earlier">;
const NEXT: Record<Source, Own> = {
  assumed: "typed",
  typed: "measured",
  measured: "assumed",
  copied: "typed",
  earlier: "measured",
};
/** What the source is called on a screen. */
export const WORD: Record<string, string> = {
  measured: "measured",
  typed: "typed",
  copied: "copied",
  earlier: "from then",
  assumed: "assumed",
};

/** Where a number comes from, by word and by line; a press turns it to the next. */
export function SourceMark({
  source,
  label,
  onChange,
}: {
  source: Source;
  label: string;
  onChange?: (s: Own) => void;
}) {
  if (!onChange)
    return (
      <span className={classes.source} data-source={source}>
        {WORD[source]}
      </span>
    );
  return (
    <button
      type="button"
      className={classes.source}
      data-source={source}
      aria-label={`${label}: ${WORD[source]}. Change the source`}
      onClick={() => onChange(NEXT[source])}
    >
      {WORD[source]}
    </button>
  );
}
