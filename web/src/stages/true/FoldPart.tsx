import { Button } from 'antd';
import { Worked } from '../../app/Working';
import { useSize } from '../../draw/useSize';
import { EntryChoice, EntryLength } from '../../fields/Entry';
import { useHeld } from '../../fields/useHeld';
import type { PartProps } from './useTrue';

/** Is the fold on grain: fold to selvage at stations, where to move and by how much; and torque. */
export function FoldPart({ found, calls }: PartProps) {
  const { fold } = found;
  const rows = fold.stations.map((s) => ({
    along: s.along.mm as number | string,
    distance: s.distance.mm as number | string,
  }));
  const change = useHeld(rows, (next) => calls.change({ fold: next }));
  return (
    <div className="buy-two">
      <div className="picture-side">
        <h1 className={fold.good ? 'good' : undefined}>{fold.headline}</h1>
        {fold.torque && <p className="look">{fold.torque}</p>}
        <FoldPicture fold={fold} />
        <p className="quiet">
          Seen from above: the selvages together at the top, the fold below. Its wandering is drawn larger than it is.
        </p>
      </div>
      <aside className="facts">
        <h2>From fold to selvage</h2>
        <table className="readings">
          <thead>
            <tr>
              <th scope="col">from the end</th>
              <th scope="col">fold to selvage</th>
              <th>
                <span className="unseen">take out</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {fold.stations.map((s, i) => (
              <tr key={i}>
                <td>
                  <EntryLength
                    bare
                    label={`Station ${i + 1}, from the end`}
                    path={`fold.${i}.along`}
                    value={s.along.text}
                    onSave={(along) => change((held) => held.map((r, n) => (n === i ? { ...r, along } : r)))}
                  />
                </td>
                <td>
                  <EntryLength
                    bare
                    label={`Station ${i + 1}, fold to selvage`}
                    path={`fold.${i}.distance`}
                    value={s.distance.text}
                    onSave={(distance) => change((held) => held.map((r, n) => (n === i ? { ...r, distance } : r)))}
                  />
                </td>
                <td>
                  <Button
                    type="text"
                    size="small"
                    aria-label={`Remove station ${i + 1}`}
                    onClick={() => void change((held) => held.filter((_, n) => n !== i))}
                  >
                    remove
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <NewStation
          onAdd={(along, distance) => change((held) => [...held, { along, distance }])}
          next={fold.stations.length + 1}
          found={found}
        />
        <ul className="plain-list">
          {fold.stations
            .filter((s) => s.told)
            .map((s) => (
              <li key={s.along.mm}>
                <b>{s.along.text}</b>:{' '}
                {s.move_figure ? (
                  <Worked figure={s.move_figure} label={`move at ${s.along.text}`}>
                    {s.told}
                  </Worked>
                ) : (
                  s.told
                )}
              </li>
            ))}
        </ul>
        {fold.spread && fold.mean && (
          <p>
            Spread{' '}
            <Worked figure={fold.spread} label="spread">
              {fold.spread.text}
            </Worked>{' '}
            about a mean of{' '}
            <Worked figure={fold.mean} label="mean">
              {fold.mean.text}
            </Worked>
            . {fold.limit}
          </p>
        )}
        <h2>Does the fold ripple?</h2>
        <EntryChoice
          label="Selvages level, and the fold"
          value={fold.ripple}
          options={[
            { value: '', label: 'hangs flat' },
            { value: 'out', label: 'ripples, slanting down towards the tested end' },
            { value: 'in', label: 'ripples, slanting down away from it' },
          ]}
          onSave={(v) => calls.change({ ripple: v as '' })}
        />
      </aside>
    </div>
  );
}

/** The next station: as soon as its distance is read, it stands. */
function NewStation({
  onAdd,
  next,
  found,
}: {
  onAdd: (along: number, distance: string) => Promise<void>;
  next: number;
  found: PartProps['found'];
}) {
  const place = found.fold.next_place;
  return (
    <EntryLength
      key={next}
      label={`Station ${next}, at ${place.text}: fold to selvage`}
      path={`fold.${next - 1}.distance`}
      value=""
      onSave={(v) => (v.trim() ? onAdd(place.mm, v) : Promise.resolve())}
    />
  );
}

function FoldPicture({ fold }: { fold: PartProps['found']['fold'] }) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const stations = fold.stations.toSorted((a, b) => a.along.mm - b.along.mm);
  const mean = fold.mean?.value ?? 0;
  const long = Math.max(1, ...stations.map((s) => s.along.mm));
  const worst = Math.max(2, ...stations.map((s) => Math.abs(s.distance.mm - mean)));
  const top = 30;
  const base = height - 110;
  const x = (mm: number) => 40 + (mm / long) * (width - 100);
  const y = (s: (typeof stations)[number]) => base + ((s.distance.mm - mean) / worst) * 44;
  return (
    <div className="picture" ref={ref}>
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label={fold.headline}>
          <rect x={20} y={top} width={width - 60} height={base - top} className="fold-cloth" />
          <line x1={20} x2={width - 40} y1={top} y2={top} className="selvage" />
          <line x1={20} x2={width - 40} y1={base} y2={base} className="as-drawn" />
          {stations.length > 1 && (
            <path
              d={stations.map((s, k) => `${k ? 'L' : 'M'}${x(s.along.mm)},${y(s)}`).join(' ')}
              className="fold-line"
            />
          )}
          {stations.map((s) => (
            <g key={s.along.mm} className="station">
              <line x1={x(s.along.mm)} x2={x(s.along.mm)} y1={top} y2={y(s)} />
              <circle cx={x(s.along.mm)} cy={y(s)} r={5} />
              <text x={x(s.along.mm) + 6} y={(top + base) / 2}>
                {s.distance.text}
              </text>
              {s.move && (
                <g className="move">
                  <path
                    d={`M${x(s.along.mm)},${y(s)} V${base} m-5,${s.outwards ? -7 : 7} l5,${s.outwards ? 7 : -7} l5,${s.outwards ? -7 : 7}`}
                  />
                  <text x={x(s.along.mm)} y={base + 74} textAnchor="middle">
                    {s.move.text}
                  </text>
                </g>
              )}
            </g>
          ))}
          {stations.length === 0 && (
            <text x={width / 2} y={(top + base) / 2} textAnchor="middle" className="label">
              read at the end, in the middle and at the other end
            </text>
          )}
        </svg>
      )}
    </div>
  );
}
