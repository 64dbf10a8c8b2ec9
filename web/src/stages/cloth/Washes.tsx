import { Button } from 'antd';
import { api, type Cloth, saved } from '../../api/client';

/** Every wash the length has had; one written down by mistake is struck out. */
export function Washes({ cloth, onNews }: { cloth: Cloth; onNews: () => void }) {
  if (cloth.washes.length === 0) return <p className="quiet">No wash was written down yet.</p>;
  async function strike(wash_id: number) {
    const path = { params: { path: { cloth_id: cloth.id, wash_id } } };
    await saved(api.DELETE('/api/cloths/{cloth_id}/washes/{wash_id}', path));
    onNews();
  }
  return (
    <ol className="washes">
      {cloth.washes.map((w) => (
        <li key={w.id}>
          {new Date(w.at).toLocaleDateString([], { day: 'numeric', month: 'short' })}: {w.how || 'washed'}
          {w.grade && (
            <>
              , rag grade <b>{w.grade}</b>
            </>
          )}
          {w.length_after && `, then ${w.length_after.text} long`}
          {w.width_after && `, ${w.width_after.text} wide`}
          {w.simulated && ' (made up)'}{' '}
          <Button size="small" type="text" onClick={() => void strike(w.id)}>
            strike out
          </Button>
        </li>
      ))}
    </ol>
  );
}
