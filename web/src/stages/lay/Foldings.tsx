import type { Lay, Stretch } from '../../api/client';

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
export function Foldings({ lay, width }: { lay: Lay; width: number }) {
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
    </section>
  );
}
