/** Parts of a column or a drawer, chosen by their words: they wrap where tabs would hide what does not fit in one line. */
export function Sections<T extends string>({
  label,
  parts,
  value,
  onChoose,
}: {
  label: string;
  parts: readonly { value: T; label: string }[];
  value: T;
  onChoose: (value: T) => void;
}) {
  return (
    <div className="sections" role="group" aria-label={label}>
      {parts.map((part) => (
        <button key={part.value} type="button" aria-pressed={part.value === value} onClick={() => onChoose(part.value)}>
          {part.label}
        </button>
      ))}
    </div>
  );
}
