import classes from "./parts.module.css";

export type Source = "measured" | "typed" | "copied" | "assumed";
type Own = Exclude<Source, "copied">;
const NEXT: Record<Source, Own> = { assumed: "typed", typed: "measured", measured: "assumed", copied: "typed" };

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
        {source}
      </span>
    );
  return (
    <button
      type="button"
      className={classes.source}
      data-source={source}
      aria-label={`${label}: ${source}. Change the source`}
      onClick={() => onChange(NEXT[source])}
    >
      {source}
    </button>
  );
}
