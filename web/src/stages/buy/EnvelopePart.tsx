import { Button } from 'antd';
import { DoButton } from '../../app/DoButton';
import { useState } from 'react';
import { api, type Envelope, type EnvelopeChange, type Project, saved, unwrap } from '../../api/client';
import { Worked } from '../../app/Working';
import { EntryChoice, EntryLength, EntryText, EntryTick } from '../../fields/Entry';
import { ConvertDrawer } from './ConvertDrawer';
import { useBuyPart } from './useBuy';

const orNull = (text: string) => (text.trim() ? text : null);
const range = (one: { mm: number; to: number | null } | null) =>
  one === null ? null : one.to === null ? one.mm : [one.mm, one.to];
/** what was not typed anew is sent back exactly, not as rounded for reading */
const plain = (found: Envelope) => ({
  sizes: found.sizes.map((s) => ({ name: s.name, body: range(s.body), finished: s.finished?.mm ?? null })),
  views: found.views.map((v) => ({
    name: v.name,
    rows: v.rows.map((r) => ({ width: range(r.width), nap: r.nap, lengths: r.lengths.map((x) => x?.mm ?? null) })),
  })),
});

const NAPS = [
  { value: '', label: 'any cloth' },
  { value: 'with', label: 'with nap' },
  { value: 'without', label: 'without nap' },
];

/** The printed chart: size, row and column, where they cross, and another width. */
export function EnvelopePart({ project }: { project: Project }) {
  const part = useBuyPart<Envelope>('envelope', (params) =>
    unwrap(api.GET('/api/projects/{project_id}/envelope', { params })),
  );
  const [convert, setConvert] = useState(false);
  const found = part.data;
  if (part.error) return <p className="spoil">{part.error.message}</p>;
  if (!found) return <p className="quiet">Fetching …</p>;
  async function change(body: EnvelopeChange) {
    part.keep(await saved(api.PATCH('/api/projects/{project_id}/envelope', { params: part.params, body })));
  }
  const { sizes, views } = plain(found);
  const view = views[found.view];
  const setSize = (i: number, given: object) =>
    change({ sizes: sizes.map((s, n) => (n === i ? { ...s, ...given } : s)) });
  const setView = (given: object) =>
    change({ views: views.map((v, n) => (n === found.view ? { ...v, ...given } : v)) });
  const setRow = (i: number, given: object) =>
    setView({ rows: view!.rows.map((r, n) => (n === i ? { ...r, ...given } : r)) });
  const cell = (i: number, k: number, text: string) => {
    const lengths = found.sizes.map((_, n) => view!.rows[i]!.lengths[n] ?? null) as (string | number | null)[];
    lengths[k] = orNull(text);
    return setRow(i, { lengths });
  };
  return (
    <div className="buy-two">
      <div className="picture-side">
        <h1>{found.headline}</h1>
        {found.told.map((t) => (
          <p key={t.text} className={t.look ? 'look' : undefined}>
            {t.text}
          </p>
        ))}
        {found.faults.map((t) => (
          <p key={t} className="spoil" role="alert">
            {t}
          </p>
        ))}
        {found.answer && (
          <p>
            For cloth that does not shrink{' '}
            <Worked figure={found.answer} label="what the envelope says">
              {found.answer.text}
            </Worked>
            {found.washed && (
              <>
                ; for this one, before washing,{' '}
                <Worked figure={found.washed} label="the envelope's length before washing">
                  {found.washed.text}
                </Worked>
              </>
            )}
            .
          </p>
        )}
        {found.compared && <p>{found.compared}</p>}
        {found.sizes.length === 0 || !view ? (
          <div className="empty">
            <p>
              Copy the chart from the back of the envelope. A width or a body measure may be a range, such as 44–45 in
              or 36–38 in.
            </p>
            <p>
              <Button
                type="primary"
                onClick={() =>
                  void change({
                    sizes: ['10', '12', '14', '16'].map((name) => ({ name, body: null, finished: null })),
                    views: [
                      {
                        name: 'A',
                        rows: [
                          { width: '45 in', nap: '', lengths: [] },
                          { width: '60 in', nap: '', lengths: [] },
                        ],
                      },
                    ],
                  })
                }
              >
                Begin a chart
              </Button>
            </p>
          </div>
        ) : (
          <table className="chart">
            <caption>
              {views.length > 1 &&
                found.views.map((v, n) => (
                  <Button
                    key={n}
                    size="small"
                    type={n === found.view ? 'primary' : 'default'}
                    onClick={() => void change({ view: n })}
                  >
                    {v.name || `view ${n + 1}`}
                  </Button>
                ))}
              <EntryText label="View" path="views" value={view.name} onSave={(name) => setView({ name })} />
            </caption>
            <thead>
              <tr>
                <th scope="col">cloth width</th>
                {found.sizes.map((s, k) => (
                  <th key={k} scope="col" className={k === found.column ? 'crossed' : undefined}>
                    <EntryText
                      bare
                      label={`Size ${k + 1}`}
                      path={`sizes.${k}.name`}
                      value={s.name}
                      onSave={(name) => setSize(k, { name })}
                    />
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {found.views[found.view]!.rows.map((r, i) => (
                <tr key={i} className={i === found.row ? 'crossed' : undefined}>
                  <th scope="row">
                    <EntryLength
                      bare
                      label={`Width of row ${i + 1}`}
                      path={`views.${found.view}.rows.${i}.width`}
                      value={r.width?.text ?? ''}
                      onSave={(w) => setRow(i, { width: orNull(w) })}
                    />
                    <EntryChoice
                      bare
                      label={`Nap of row ${i + 1}`}
                      value={r.nap}
                      options={NAPS}
                      onSave={(nap) => setRow(i, { nap })}
                    />
                  </th>
                  {found.sizes.map((s, k) => (
                    <td
                      key={k}
                      className={
                        i === found.row && k === found.column ? 'crossing' : k === found.column ? 'crossed' : undefined
                      }
                    >
                      <EntryLength
                        bare
                        label={`Row ${i + 1}, size ${s.name}`}
                        path={`views.${found.view}.rows.${i}.lengths.${k}`}
                        value={r.lengths[k]?.text ?? ''}
                        placeholder="—"
                        onSave={(t) => cell(i, k, t)}
                      />
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
            <tbody className="chart-body">
              <tr>
                <th scope="row">body {found.measure}</th>
                {found.sizes.map((s, k) => (
                  <td key={k} className={k === found.column ? 'crossed' : undefined}>
                    <EntryLength
                      bare
                      label={`Body of size ${s.name}`}
                      path={`sizes.${k}.body`}
                      value={s.body?.text ?? ''}
                      placeholder="—"
                      onSave={(t) => setSize(k, { body: orNull(t) })}
                    />
                  </td>
                ))}
              </tr>
              <tr>
                <th scope="row">finished {found.measure}</th>
                {found.sizes.map((s, k) => (
                  <td key={k} className={k === found.column ? 'crossed' : undefined}>
                    <EntryLength
                      bare
                      label={`Finished of size ${s.name}`}
                      path={`sizes.${k}.finished`}
                      value={s.finished?.text ?? ''}
                      placeholder="—"
                      onSave={(t) => setSize(k, { finished: orNull(t) })}
                    />
                  </td>
                ))}
              </tr>
            </tbody>
          </table>
        )}
        {view && (
          <p className="commands">
            <DoButton onDo={() => setView({ rows: [...view.rows, { width: null, nap: '', lengths: [] }] })}>
              Another width
            </DoButton>
            <DoButton
              onDo={() => change({ sizes: [...sizes, { name: String(sizes.length + 1), body: null, finished: null }] })}
            >
              Another size
            </DoButton>
            <DoButton
              onDo={() =>
                change({
                  views: [
                    ...views,
                    { name: `View ${views.length + 1}`, rows: [{ width: null, nap: '', lengths: [] }] },
                  ],
                  view: views.length,
                })
              }
            >
              Another view
            </DoButton>
            <Button onClick={() => setConvert(true)}>Convert</Button>
          </p>
        )}
      </div>
      <aside className="facts">
        <h2>Which size</h2>
        {found.size_told && <p>{found.size_told}</p>}
        {found.ease_told && <p className="quiet">{found.ease_told}</p>}
        <div className="two">
          <EntryText
            label="The measure that decides"
            path="measure"
            value={found.measure}
            placeholder="bust, waist or hip"
            onSave={(measure) => change({ measure })}
          />
          <EntryLength
            label={`Your ${found.measure}`}
            path="mine"
            value={found.mine?.text ?? ''}
            onSave={(t) => change({ mine: orNull(t) })}
          />
        </div>
        <EntryChoice
          label="The garment fits"
          value={found.fit}
          options={[
            { value: 'loose', label: 'loosely: between two sizes, the smaller' },
            { value: 'close', label: 'closely: between two sizes, the larger' },
          ]}
          onSave={(v) => change({ fit: v as 'loose' })}
        />
        <EntryChoice
          label="Size to read"
          value={found.size}
          options={[
            {
              value: '',
              label: found.chosen_size && !found.size ? `as measured: ${found.chosen_size}` : 'as measured',
            },
            ...found.sizes.filter((s) => s.name).map((s) => ({ value: s.name, label: s.name })),
          ]}
          onSave={(size) => change({ size })}
        />
        <h2>Which width</h2>
        <EntryLength
          label="The cloth is wide"
          path="to_width"
          value={found.to_width?.text ?? ''}
          placeholder={project.cloth.width_readings[0]?.text ?? 'not measured'}
          onSave={(t) => change({ to_width: orNull(t) })}
        />
        <EntryTick
          label="sleeves cut in one with the body"
          value={found.sleeves_in_one}
          onSave={(sleeves_in_one) => change({ sleeves_in_one })}
        />
        <p className="quiet">{found.more_told}</p>
      </aside>
      <ConvertDrawer open={convert} onClose={() => setConvert(false)} />
    </div>
  );
}
