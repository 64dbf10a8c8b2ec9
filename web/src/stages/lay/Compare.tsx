import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { api, unwrap } from '../../api/client';
import { useAsked } from '../../api/hooks';
import { keys } from '../../api/keys';

/** Every lay there is side by side: how long, what it costs, how much work, which rules it breaks, what it leaves. */
export function Compare({ onChoose }: { onChoose: (id: number) => void }) {
  const { id, key, params } = useAsked();
  const found = useQuery({
    queryKey: [...keys.lay(id, key), 'compare'],
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/lay/compare', { params })),
  });
  if (found.isError) return <p className="spoil">{found.error.message}</p>;
  if (!found.data) return <p className="quiet">Fetching …</p>;
  return (
    <table className="compare">
      <thead>
        <tr>
          <th>lay</th>
          <th>length</th>
          <th>to buy</th>
          <th>cost</th>
          <th>to pin</th>
          <th>folded anew</th>
          <th>breaks</th>
          <th>leaves over</th>
          <th>
            <span className="unseen">Choose</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {found.data.lays.map((one) => (
          <tr key={one.lay_id} className={one.chosen ? 'chosen' : undefined}>
            <th>{one.label}</th>
            <td>{one.length.text}</td>
            <td>{one.to_buy?.text ?? '–'}</td>
            <td>{one.cost?.text ?? '–'}</td>
            <td>{one.cuts}</td>
            <td>{one.unfoldings}</td>
            <td>{one.broken.length === 0 ? 'nothing' : one.broken.join(' ')}</td>
            <td>
              {one.left.length === 0
                ? 'nothing of use'
                : one.left.map((r) => `${r.along.text} × ${r.across.text}`).join('; ')}
            </td>
            <td>{!one.chosen && <Button onClick={() => onChoose(one.lay_id)}>Go by it</Button>}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
