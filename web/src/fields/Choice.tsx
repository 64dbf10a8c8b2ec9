import { lazy, Suspense } from 'react';
import type { ChoiceProps } from './SearchChoice';

/** A short list is the system's own: large rows under the finger, and the first letter chooses. */
function SystemChoice({ id, label, value, options, placeholder, wrong, onChoose }: ChoiceProps) {
  const known = options.some((o) => o.value === value);
  return (
    <select
      id={id}
      aria-label={label}
      className="choice"
      value={known ? value : ''}
      aria-invalid={wrong}
      onChange={(e) => onChoose(e.target.value)}
    >
      {!known && (
        <option value="" disabled>
          {placeholder}
        </option>
      )}
      {options.map((o) => (
        <option key={o.value} value={o.value}>
          {o.label}
        </option>
      ))}
    </select>
  );
}

// a long list's search is only fetched where there is one
const SearchChoice = lazy(() => import('./SearchChoice'));

/** A longer list than this is searched by typing; a shorter one is the system's own, with its large rows on a tablet. */
const MOST_AT_A_GLANCE = 10;

/** One of a list: a long one is searched by typing. */
export function Choice(props: ChoiceProps) {
  const short = <SystemChoice {...props} />;
  return props.options.length > MOST_AT_A_GLANCE ? (
    <Suspense fallback={short}>
      <SearchChoice {...props} />
    </Suspense>
  ) : (
    short
  );
}
