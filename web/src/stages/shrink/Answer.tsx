import type { Known } from '../../api/client';
import { Worked } from '../../app/Working';
import { restsOn } from '../../words/shrink';

const TOP = 12;
/** Shrinkage of one direction, big, with its range and what it rests on. */
export function Answer({ name, known }: { name: string; known: Known }) {
  const figure = known.figure;
  if (!figure)
    return (
      <p className="quiet">
        {name}: {known.missing}
      </p>
    );
  const at = (v: number) => `${Math.max(0, Math.min(100, (v / TOP) * 100))}%`;
  const low = figure.low_value ?? figure.value;
  const high = figure.high_value ?? figure.value;
  return (
    <div className="answer">
      <span className="answer-name">{name}</span>
      <Worked figure={figure} label={`shrinkage, ${name.toLowerCase()}`}>
        <b className="answer-number">{figure.number}</b> <span>{figure.sure ?? '%'}</span>
      </Worked>
      <div className={`range range-${known.basis}`} aria-hidden="true">
        <i style={{ left: at(low), right: `calc(100% - ${at(high)})` }} />
        {[0, 4, 8, 12].map((n) => (
          <span key={n} style={{ left: at(n) }}>
            {n} %
          </span>
        ))}
      </div>
      <p className="quiet">
        {restsOn[known.basis]}
        {known.basis === 'history' && figure.note ? ` (${figure.note})` : ''}
      </p>
    </div>
  );
}
