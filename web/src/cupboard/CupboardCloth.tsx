import { useAct } from '../app/useAct';
import { keys, every } from '../api/keys';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, type ClothChange, saved, unwrap } from '../api/client';
import { useClothNews } from '../api/hooks';
import { ClothEditor } from './ClothEditor';
import { ClothLog } from './ClothLog';

/** One cloth of the cupboard, whichever projects use it. */
export function CupboardCloth() {
  const id = Number(useParams()['clothId']);
  const client = useQueryClient();
  const go = useNavigate();
  const news = useClothNews();
  const path = { params: { path: { cloth_id: id } } };
  const found = useQuery({ queryKey: keys.cloth(id), queryFn: () => unwrap(api.GET('/api/cloths/{cloth_id}', path)) });
  const [log, setLog] = useState(false);
  const { run: takeOut, error } = useAct(async () => {
    await saved(api.DELETE('/api/cloths/{cloth_id}', path));
    news();
    void go('/cupboard');
  });
  if (found.isError)
    return (
      <main className="stage">
        <h1>This cloth cannot be shown</h1>
        <p>
          {found.error.message} <Link to="/cupboard">Back to the cupboard</Link>
        </p>
      </main>
    );
  const cloth = found.data;
  if (!cloth)
    return (
      <main className="stage">
        <p className="quiet">Fetching …</p>
      </main>
    );
  async function change(body: ClothChange) {
    client.setQueryData(keys.cloth(id), await saved(api.PATCH('/api/cloths/{cloth_id}', { ...path, body })));
    for (const kind of ['cupboard', 'project', 'projects', 'shrink', 'washday'] as const)
      void client.invalidateQueries(every(kind));
  }
  return (
    <>
      {log && <ClothLog id={id} onClose={() => setLog(false)} />}
      <ClothEditor
        cloth={cloth}
        onChange={change}
        onNews={news}
        headline={cloth.name || 'A cloth without a name'}
        commands={
          <>
            <Link to="/cupboard">Back to the cupboard</Link>
            <Button onClick={() => setLog(true)}>Its log</Button>
            <a href={`/api/cloths/${id}/archive.zip`} download>
              This cloth as one file
            </a>
            <Button type="text" onClick={() => void takeOut()}>
              Take it out
            </Button>
            {error && (
              <span className="spoil" role="alert">
                {error}
              </span>
            )}
          </>
        }
      />
    </>
  );
}
