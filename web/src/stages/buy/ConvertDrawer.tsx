import { keys } from '../../api/keys';
import { useQuery } from '@tanstack/react-query';
import { Drawer, Input } from 'antd';
import { useDeferredValue, useState } from 'react';
import { api, unwrap } from '../../api/client';
import { Worked } from '../../app/Working';

/** One length in every unit, always saying which way it was rounded, and the fractions of a yard. */
export function ConvertDrawer({ open, onClose }: { open: boolean; onClose: () => void }) {
  const [text, setText] = useState('1 3/8 yd');
  const asked = useDeferredValue(text);
  const found = useQuery({
    queryKey: keys.convert(asked),
    enabled: open,
    retry: false,
    placeholderData: (old) => old,
    queryFn: () => unwrap(api.GET('/api/convert', { params: { query: { length: asked } } })),
  });
  return (
    <Drawer closeIcon="Close" title="Convert a length or a weight" open={open} onClose={onClose} size={460}>
      <div className="entry">
        <label htmlFor="convert">A length or a weight, in any unit</label>
        <Input
          id="convert"
          value={text}
          data-tape
          onChange={(e) => setText(e.target.value)}
          status={found.isError ? 'error' : undefined}
        />
        <span className="say spoil" role={found.isError ? 'alert' : undefined}>
          {found.isError ? found.error.message : ''}
        </span>
      </div>
      {!found.isError && (
        <ul className="plain-list spoken">
          {found.data?.spoken.map((s) => (
            <li key={s.unit}>
              <b>
                <Worked figure={s.figure} label={s.unit}>
                  {s.text}
                </Worked>
              </b>
              <span>{s.unit}</span>
              <small>{s.rounded}</small>
            </li>
          ))}
          {found.data?.weights.map((w) => (
            <li key={w.unit}>
              <b>{w.text}</b>
              <span>{w.unit}</span>
              <small>to the nearest</small>
            </li>
          ))}
        </ul>
      )}
      <h2>Fractions of a yard</h2>
      <table className="offers">
        <thead>
          <tr>
            <th scope="col">yards</th>
            <th scope="col">inches</th>
            <th scope="col">centimetres</th>
            <th scope="col">
              <span className="unseen">rounded</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {found.data?.table.map((r) => (
            <tr key={r.yards}>
              <th scope="row">{r.yards}</th>
              <td>{r.inches}</td>
              <td>{r.centimetres}</td>
              <td>
                <small>{r.rounded}</small>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet">{found.data?.source}</p>
    </Drawer>
  );
}
