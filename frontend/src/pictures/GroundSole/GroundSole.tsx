import { lowest, outlinePath, type Point } from "../outline";
import { Picture } from "../Picture";

interface Props {
  before: readonly Point[];
  after: readonly Point[];
  words: string;
}

const HEIGHT = 140;

/** A head's section before and after the bench, one over the other, each resting on the ground, at true angles. */
export function GroundSole({ before, after, words }: Props) {
  const scale = (HEIGHT - 24) / 42;
  const place = (outline: readonly Point[], width: number) =>
    `translate(${width * 0.6} ${HEIGHT - 16 + lowest(outline) * scale}) scale(${scale} ${-scale})`;
  return (
    <Picture height={HEIGHT} role="img" aria-label={words}>
      {(width) => (
        <>
          <line x2={width} y1={HEIGHT - 15} y2={HEIGHT - 15} stroke="var(--grass)" strokeWidth={2} />
          <path
            d={outlinePath(after)}
            transform={place(after, width)}
            fill="var(--steel)"
            stroke="var(--steel-line)"
            strokeWidth={1.6 / scale}
          />
          <path
            d={outlinePath(before)}
            transform={place(before, width)}
            fill="none"
            stroke="var(--rust)"
            strokeWidth={1.2 / scale}
            strokeDasharray={`${4 / scale} ${3 / scale}`}
          />
        </>
      )}
    </Picture>
  );
}
