import { Link } from 'react-router';
import { useAt } from '../../api/hooks';
import { Worked } from '../../app/Working';
import { EntryLength } from '../../fields/Entry';
import type { PartProps } from './useTrue';

/** Grainline check: two distances from the arrow to the selvage for each pinned piece of the lay. */
export function CheckPart({ found, calls }: PartProps) {
  const at = useAt();
  const done = found.checks.filter((c) => c.good !== null);
  const off = done.filter((c) => !c.good);
  return (
    <>
      <h1>
        {found.checks.length === 0
          ? 'Is each pinned piece on grain?'
          : off.length
            ? `${off[0]!.piece}: ${off[0]!.told}`
            : done.length === found.checks.length
              ? 'Every pinned piece is on grain'
              : `${done.length} of ${found.checks.length} pinned pieces checked`}
      </h1>
      {found.checks_missing && (
        <p className="look">
          {found.checks_missing} <Link to={at('lay')}>To the lay</Link>
        </p>
      )}
      {found.checks.length > 0 && (
        <>
          <p className="quiet">{found.checks_limit}</p>
          <table className="offers checks">
            <thead>
              <tr>
                <th scope="col">piece</th>
                <th scope="col">to the</th>
                <th scope="col">the lay says, tail and head</th>
                <th scope="col">read at the tail</th>
                <th scope="col">read at the head</th>
                <th scope="col">tilt</th>
                <th scope="col">
                  <span className="unseen">is it on grain</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {found.checks.map((c) => (
                <tr key={c.key}>
                  <th scope="row">
                    {c.piece}, {c.copy_number}
                    <small>arrow {c.arrow.text}</small>
                  </th>
                  <td>{c.edge}</td>
                  <td>
                    <Worked figure={c.wanted_tail} label={`${c.piece}, ${c.copy_number}, tail by the lay`}>
                      {c.wanted_tail.text}
                    </Worked>{' '}
                    and{' '}
                    <Worked figure={c.wanted_head} label={`${c.piece}, ${c.copy_number}, head by the lay`}>
                      {c.wanted_head.text}
                    </Worked>
                  </td>
                  {(['tail', 'head'] as const).map((end) => (
                    <td key={end} className="check-field">
                      <EntryLength
                        bare
                        label={`${c.piece}, ${c.copy_number}, ${end}`}
                        path={`check.${end}`}
                        value={c[end]?.text ?? ''}
                        placeholder={end === 'tail' ? c.wanted_tail.text : c.wanted_head.text}
                        onSave={(v) => calls.change({ check: { key: c.key, [end]: v.trim() ? v : null } })}
                      />
                    </td>
                  ))}
                  <td>
                    {c.tilt && (
                      <>
                        <Arrow degrees={c.tilt.value} />{' '}
                        <Worked figure={c.tilt} label={`tilt of ${c.piece}`}>
                          {c.tilt.text}
                        </Worked>
                      </>
                    )}
                  </td>
                  <td className={c.good === null ? undefined : c.good ? 'good' : 'spoil'}>
                    {c.good ? '✓ ' : ''}
                    {c.told}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </>
  );
}

/** A little arrow that leans as the piece does, eight times as much. */
function Arrow({ degrees }: { degrees: number }) {
  const lean = Math.max(-40, Math.min(40, degrees * 8));
  return (
    <svg width={64} height={34} viewBox="-32 -17 64 34" aria-hidden="true" className="grain tilt">
      <line x1={-30} x2={30} y1={0} y2={0} className="as-drawn" />
      <g transform={`rotate(${-lean})`}>
        <line x1={-24} x2={22} y1={0} y2={0} />
        <path d="M28,0 l-9,-4 v8 z" />
      </g>
    </svg>
  );
}
