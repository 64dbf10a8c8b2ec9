import type { Shape } from '../../api/client';

/** Every piece by its place along the cloth; what is chosen here is chosen in the picture. */
export function PieceList({
  shapes,
  chosen,
  onChoose,
}: {
  shapes: readonly Shape[];
  chosen: readonly string[];
  onChoose: (keys: string[]) => void;
}) {
  const start = (shape: Shape) => Math.min(...shape.outline.map(([x]) => x));
  const sorted = shapes.toSorted((a, b) => a.section - b.section || start(a) - start(b));
  return (
    <section aria-label="All pieces" className="piece-list">
      <h2>By place along the cloth</h2>
      <ul>
        {sorted.map((shape) => (
          <li key={shape.key}>
            <button type="button" aria-pressed={chosen.includes(shape.pinned)} onClick={() => onChoose([shape.pinned])}>
              <b>{shape.name}</b>
              <span>
                {shape.from_end}
                {shape.layers === 2 ? ', two layers' : ''}
                {shape.locked ? ', locked' : ''}
                {shape.broken.length > 0 ? ', breaks a rule' : ''}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
