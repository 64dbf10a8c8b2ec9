import { Button } from 'antd';
import { Link } from 'react-router';
import type { Project } from '../../api/client';
import { useChanges } from '../../api/hooks';
import { Worked } from '../../app/Working';
import { AddCloth } from '../../cupboard/AddCloth';

const RESTS_ON: Record<string, string> = {
  swatch: 'swatch',
  history: 'your tests',
  range: 'planning range',
  none: 'not known',
  raw: 'raw',
};

/** Every cloth, lining, interfacing and trim of the project, side by side. */
export function SetPart({ project }: { project: Project }) {
  const changes = useChanges();
  const { headline, members, mismatches, all_washed, wanted } = project.set;
  return (
    <>
      <h1>{headline}</h1>
      {mismatches.map((m) => (
        <p key={m} className="spoil">
          {m}
        </p>
      ))}
      {wanted.map((w) => (
        <p key={w} className="look">
          {w}
        </p>
      ))}
      {all_washed && <p className="look">{all_washed}</p>}
      <table className="set-table">
        <thead>
          <tr>
            <th scope="col">cloth</th>
            <th scope="col">made of</th>
            <th scope="col">along</th>
            <th scope="col">across</th>
            <th scope="col">rests on</th>
            <th scope="col">treatment</th>
            <th scope="col">rub test</th>
            <th scope="col">
              <span className="unseen">take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {members.map((m) => (
            <tr key={m.use_id}>
              <th scope="row">
                <Link to={`/projects/${project.id}/cloth${m.role === 'main' ? '' : `?of=${m.use_id}`}`}>{m.name}</Link>
                <small>{m.role_label}</small>
              </th>
              <td>{m.made_of || '—'}</td>
              <td>
                {m.warp ? (
                  <Worked figure={m.warp} label={`shrinkage along, ${m.name}`}>
                    {m.warp.text}
                  </Worked>
                ) : (
                  '—'
                )}
              </td>
              <td>
                {m.weft ? (
                  <Worked figure={m.weft} label={`shrinkage across, ${m.name}`}>
                    {m.weft.text}
                  </Worked>
                ) : (
                  '—'
                )}
              </td>
              <td>{RESTS_ON[m.basis] ?? m.basis}</td>
              <td>{m.washed ? <span className="good">✓ pre-treated</span> : m.treatment}</td>
              <td>{m.rub || '—'}</td>
              <td>
                {m.role !== 'main' && (
                  <Button
                    type="text"
                    onClick={() => void changes.removeUse(m.use_id)}
                    aria-label={`Take ${m.name} from the set`}
                  >
                    remove
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <AddCloth />
      <p className="quiet">
        Cloths sewn together may differ by 2 points in the same direction (common practice). Trims and interfacing
        shrink too.
      </p>
    </>
  );
}
