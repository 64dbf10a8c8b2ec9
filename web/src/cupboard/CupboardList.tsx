import type { CupboardLine } from '../api/client';
import { ClothPattern } from '../draw/ClothPattern';

/** Cloths as folded strips, each with its facts. */
export function CupboardList({ lines, onChoose }: { lines: CupboardLine[]; onChoose: (id: number) => void }) {
  return (
    <ul className="cupboard">
      {lines.map(({ cloth, left, shrinkage, projects }) => (
        <li key={cloth.id}>
          <button
            type="button"
            onClick={() => onChoose(cloth.id)}
            aria-label={`${cloth.name || 'A cloth without a name'}, ${left}`}
          >
            <svg width="100%" height="100%" aria-hidden="true">
              <defs>
                <ClothPattern id={`cup-${cloth.id}`} cloth={cloth} scale={0.3} />
              </defs>
              <rect width="100%" height="100%" fill={`url(#cup-${cloth.id})`} />
              <rect width="100%" height="100%" fill={`url(#cup-${cloth.id}-weave)`} />
            </svg>
            <span className="cupboard-facts">
              <strong>{cloth.name || 'a cloth without a name'}</strong>
              <span>{[cloth.made_of, left].filter(Boolean).join('; ')}</span>
              {shrinkage && <span>shrinks {shrinkage}</span>}
              <span className="quiet">
                {[cloth.place, projects.length ? `for ${projects.join(', ')}` : 'for nothing yet']
                  .filter(Boolean)
                  .join('; ')}
              </span>
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}
