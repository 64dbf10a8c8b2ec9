import { Button } from 'antd';
import { useState } from 'react';
import type { Choices, Gesture, Lay, Stretch } from '../../api/client';
import { EntryChoice } from '../../fields/Entry';

/** Cloth seen from its end: a line for each layer, bent at the folds. */
function FromTheEnd({ stretch, width }: { stretch: Stretch; width: number }) {
  const folds = stretch.lines.filter((l) => l.kind === 'fold' && l.start[0] !== l.end[0]).map((l) => l.start[1]);
  const k = 250 / width;
  const gap = 9;
  if (stretch.fold === 'crosswise')
    return (
      <svg className="from-the-end" viewBox="0 0 270 40" role="img" aria-label="Seen from the side">
        <path d={`M260,10 H20 a${gap / 2},${gap / 2} 0 0 0 0,${gap} H260`} />
        <text x="22" y="36">
          fold
        </text>
        <text x="262" y="36" textAnchor="end">
          cut ends
        </text>
      </svg>
    );
  const r = gap / 2;
  const [one, two] = [folds[0], folds[1]];
  const x = (y: number) => 10 + y * k;
  let d = `M${x(0)},16 H${x(width)}`;
  if (one !== undefined && two === undefined) d = `M${x(width)},12 H${x(one)} a${r},${r} 0 0 0 0,${gap} H${x(2 * one)}`;
  else if (one !== undefined && two !== undefined)
    d = `M${x(2 * one)},21 H${x(one)} a${r},${r} 0 0 1 0,${-gap} H${x(two)} a${r},${r} 0 0 1 0,${gap} H${x(2 * two - width)}`;
  return (
    <svg className="from-the-end" viewBox="0 0 270 40" role="img" aria-label="Seen from its cut end">
      <path d={d} />
      {folds.map((y) => (
        <text key={y} x={x(y)} y="36" textAnchor="middle">
          fold
        </text>
      ))}
    </svg>
  );
}

/** How to fold it: numbered steps with what to measure, stretch by stretch. */
export function Foldings({
  lay,
  width,
  choices,
  onDo,
}: {
  lay: Lay;
  width: number;
  choices: Choices | undefined;
  onDo: (gesture: Gesture) => Promise<boolean>;
}) {
  return (
    <section aria-label="How to fold it" className="foldings">
      <h2>How to fold it</h2>
      {lay.foldings.map((one) => {
        const stretch = lay.pinned.stretches.find((s) => s.section === one.section);
        return (
          <div key={one.section}>
            {lay.foldings.length > 1 && (
              <h3>
                {one.section + 1}. {one.start.text} to {one.end.text}: {one.label}
              </h3>
            )}
            {stretch && <FromTheEnd stretch={stretch} width={width} />}
            <ol>
              {one.steps.map((step) => (
                <li key={step}>{step}</li>
              ))}
            </ol>
          </div>
        );
      })}
      <Another lay={lay} choices={choices} onDo={onDo} />
    </section>
  );
}

/** Another stretch behind the lay, folded otherwise; or an empty one taken away. */
function Another({
  lay,
  choices,
  onDo,
}: {
  lay: Lay;
  choices: Choices | undefined;
  onDo: (gesture: Gesture) => Promise<boolean>;
}) {
  const [fold, setFold] = useState('open');
  const [depth, setDepth] = useState('');
  const last = lay.foldings.at(-1);
  const empty = lay.foldings.length > 1 && last?.start.mm === last?.end.mm;
  if (lay.fold === 'crosswise') return null;
  if (empty)
    return (
      <p>
        The last stretch is empty: drag pieces onto it behind the lay.{' '}
        <Button size="small" onClick={() => void onDo({ do: 'no-stretch' })}>
          Take it away
        </Button>
      </p>
    );
  return (
    <div className="another-stretch">
      <EntryChoice
        label="Another stretch behind it"
        value={fold}
        options={(choices?.folds ?? []).filter((one) => choices?.stretches.includes(one.value))}
        onSave={(v) => {
          setFold(v);
          return Promise.resolve();
        }}
      />
      {fold === 'partial' && (
        <label className="entry">
          <span>folded up by</span>
          <input value={depth} onChange={(e) => setDepth(e.target.value)} aria-label="Folded up by" />
        </label>
      )}
      <Button
        onClick={() => void onDo({ do: 'stretch', fold, depth: fold === 'partial' && depth.trim() ? depth : null })}
      >
        Add it
      </Button>
    </div>
  );
}
