import { useAct } from '../../app/useAct';
import { Button, Checkbox, ConfigProvider, Input } from 'antd';
import { useState } from 'react';
import { api, type Project, saved, type ShopList, unwrap } from '../../api/client';
import { useTape } from '../../api/hooks';
import { Worked } from '../../app/Working';
import { ConvertDrawer } from './ConvertDrawer';
import { useBuyPart } from './useBuy';

/** The list for the shop: ticked off with a thumb, printed, or taken away. */
export function ListPart({ project }: { project: Project }) {
  const part = useBuyPart<ShopList>('list', ({ path }) =>
    unwrap(api.GET('/api/projects/{project_id}/list', { params: { path } })),
  );
  const [kind, setKind] = useState('zip');
  const [name, setName] = useState('');
  const [amount, setAmount] = useState('');
  const [convert, setConvert] = useState(false);
  const found = part.data;
  const { path } = part.params;
  const { imperial } = useTape();
  const {
    run: add,
    busy,
    error,
  } = useAct(
    async () => {
      part.keep(
        await saved(api.POST('/api/projects/{project_id}/list', { params: { path }, body: { kind, name, amount } })),
      );
      setName('');
      setAmount('');
    },
    { once: true },
  );
  if (part.error) return <p className="spoil">{part.error.message}</p>;
  if (!found) return <p className="quiet">Fetching …</p>;
  const tick = async (item_id: string, have: boolean) =>
    part.keep(
      await saved(
        api.PUT('/api/projects/{project_id}/list/{item_id}/have', {
          params: { path: { ...path, item_id } },
          body: { have },
        }),
      ),
    );
  async function remove(item: ShopList['items'][number]) {
    part.keep(
      await saved(
        api.DELETE('/api/projects/{project_id}/list/{item_id}', { params: { path: { ...path, item_id: item.id } } }),
      ),
    );
  }
  return (
    <div className="shop-list">
      <h1>{found.headline}</h1>
      <p className="print-only">
        {project.name} · {project.note}
      </p>
      <ConfigProvider theme={{ token: { controlInteractiveSize: 24 } }}>
        <ul className="items">
          {found.items.map((item) => (
            <li key={item.id} data-have={item.have}>
              <Checkbox
                className="item"
                checked={item.have}
                disabled={item.enough}
                onChange={(e) => void tick(item.id, e.target.checked)}
                aria-label={`${item.name} is in the house`}
              >
                {item.colour && <i style={{ background: item.colour }} />}
                <span className="item-name">
                  <b>{item.name}</b>
                  <small>
                    {item.kind_label}; before sewing: {item.pretreat}
                  </small>
                </span>
              </Checkbox>
              <span className="item-amount">
                {item.figure ? (
                  <Worked figure={item.figure} label={item.name}>
                    {item.amount}
                  </Worked>
                ) : (
                  item.amount
                )}
                {item.own && (
                  <Button type="text" size="small" aria-label={`Remove ${item.name}`} onClick={() => void remove(item)}>
                    remove
                  </Button>
                )}
              </span>
            </li>
          ))}
        </ul>
      </ConfigProvider>
      <form
        className="bench-new no-print"
        onSubmit={(e) => {
          e.preventDefault();
          void add();
        }}
      >
        <label htmlFor="item-kind">Put on the list</label>
        <select id="item-kind" className="choice" value={kind} onChange={(e) => setKind(e.target.value)}>
          {found.kinds.map((k) => (
            <option key={k.value} value={k.value}>
              {k.label}
            </option>
          ))}
        </select>
        <Input
          aria-label="What it is"
          value={name}
          onChange={(e) => setName(e.target.value)}
          placeholder={imperial ? 'such as: zip, 7 in, slate' : 'such as: zip, 18 cm, slate'}
        />
        <Input
          aria-label="How much"
          className="item-much"
          value={amount}
          onChange={(e) => setAmount(e.target.value)}
          placeholder="how much"
        />
        <Button htmlType="submit" loading={busy}>
          Put on
        </Button>
        <span className="quiet">before sewing: {found.kinds.find((k) => k.value === kind)?.pretreat}</span>
        {error && (
          <span className="say spoil" role="alert">
            {error}
          </span>
        )}
      </form>
      <p className="commands no-print">
        <Button onClick={() => window.print()}>Print</Button>
        <a href={`/api/projects/${project.id}/list.csv`} download>
          Take it away (CSV)
        </a>
        <Button onClick={() => setConvert(true)}>Convert</Button>
      </p>
      <p className="quiet no-print">
        Thread follows the colour that dominates from a distance. Everything that shrinks is washed before it is sewn
        in.
      </p>
      <ConvertDrawer open={convert} onClose={() => setConvert(false)} />
    </div>
  );
}
