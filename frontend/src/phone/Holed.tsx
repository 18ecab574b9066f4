/** Strokes to hole out, this one counted; leaving it out is fine. */
export function Holed({ value, onChange }: { value: number | null; onChange: (count: number) => void }) {
  return (
    <>
      <p>Holed in, this one counted</p>
      <div className="pick" role="radiogroup" aria-label="Holed in, this one counted">
        {[2, 3, 4, 5].map((count) => (
          <button key={count} type="button" role="radio" aria-checked={count === value} onClick={() => onChange(count)}>
            {count}
          </button>
        ))}
      </div>
    </>
  );
}
