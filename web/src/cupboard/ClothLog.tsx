import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Drawer } from 'antd';
import { api, unwrap } from '../api/client';
import { every, keys } from '../api/keys';
import { Line, Noting } from '../stages/log/lines';

/** The log of one cloth, whichever garments use it, or none. */
export function ClothLog({ id, onClose }: { id: number; onClose: () => void }) {
  const client = useQueryClient();
  const log = useQuery({
    queryKey: [...keys.log(null), 'cloth', id],
    queryFn: () => unwrap(api.GET('/api/log/lines', { params: { query: { cloth: id, lines: 500 } } })),
  });
  const lines = log.data?.groups.flat() ?? [];
  return (
    <Drawer open size={620} title="Its log" closeIcon="Close" onClose={onClose}>
      <Noting of={{ cloth: id }} onNoted={() => void client.invalidateQueries(every('log'))} />
      {log.isError && <p className="spoil">{log.error.message}</p>}
      {log.data && lines.length === 0 && <p className="quiet">Nothing was written down of it yet.</p>}
      <ol className="log-lines">
        {lines.map((entry) => (
          <Line key={entry.id} entry={entry} whose={false} day />
        ))}
      </ol>
    </Drawer>
  );
}
