import { Button } from "@mantine/core";
import classes from "./OutList.module.css";

/** What was taken out and can be put back, by its key, as it is told. */
export interface OutLine {
  key: string;
  words: string;
}

/** Things that were taken out, read once the list is opened, each to be put back. */
export function OutList<Line extends OutLine>({
  title,
  none,
  lines,
  failure,
  onOpen,
  onBack,
}: {
  title: string;
  /** What is said where there is nothing. */
  none?: string;
  lines: readonly Line[] | undefined;
  failure?: Error | null;
  onOpen?: (open: boolean) => void;
  onBack: (line: Line) => void;
}) {
  return (
    <details className={classes.out} onToggle={(event) => onOpen?.(event.currentTarget.open)}>
      <summary>{title}</summary>
      {failure && <p role="alert">{failure.message}</p>}
      {lines?.length === 0 && <p>{none}</p>}
      {lines && lines.length > 0 && (
        <ul>
          {lines.map((line) => (
            <li key={line.key}>
              <span>{line.words}</span>
              <Button size="compact-sm" variant="default" onClick={() => onBack(line)}>
                Put back
              </Button>
            </li>
          ))}
        </ul>
      )}
    </details>
  );
}
