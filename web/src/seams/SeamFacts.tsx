import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { api, type Match, type Seam, unwrap } from '../api/client';
import { useAsked } from '../api/hooks';
import { keys } from '../api/keys';
import { useAct } from '../app/useAct';
import { DraftScope, EntryChoice, EntryLength, EntryText, EntryTick } from '../fields/Entry';
import type { MatchCalls } from './useMatch';
import { called, Verdict } from './Verdict';

/** Where ease is spread along the longer side, as shares of it. */
const SPREADS = [
  { value: '0–1', label: 'all along' },
  { value: '0–0.5', label: 'in the first half' },
  { value: '0.5–1', label: 'in the second half' },
  { value: '0.3–1', label: 'after the first third' },
  { value: '0–0.7', label: 'up to the last third' },
];

/** What is said of one seam, what its bars come to, and the ways out where they miss. */
export function SeamFacts({
  match,
  seam,
  calls,
  onSee,
}: {
  match: Match;
  seam: Seam;
  calls: MatchCalls;
  onSee: () => void;
}) {
  const { id, key, params } = useAsked();
  const ways =
    useQuery({
      queryKey: [...keys.match(id, key), 'ways', seam.id],
      enabled: seam.verdict === 'misses' || seam.verdict === 'nearly',
      queryFn: () =>
        unwrap(
          api.GET('/api/projects/{project_id}/seams/{seam_id}/ways', {
            params: { path: { ...params.path, seam_id: seam.id }, query: params.query },
          }),
        ),
    }).data?.ways ?? [];
  const act = useAct(async (then: () => Promise<unknown>) => then());
  const change = (body: Parameters<MatchCalls['change']>[1]) => calls.change(seam.id, body);
  const order = match.seams.map((s) => s.id);
  const place = order.indexOf(seam.id);
  const moved = (to: number) => {
    const rest = order.filter((id) => id !== seam.id);
    return [...rest.slice(0, to), seam.id, ...rest.slice(to)];
  };
  const sewn = seam.kind === 'sewn';
  return (
    <section aria-label="The chosen seam">
      <h2>{called(seam)}</h2>
      {seam.gone ? (
        <p className="look">{seam.gone}</p>
      ) : (
        <p>
          <Verdict seam={seam} />
        </p>
      )}
      <p className="quiet">
        {sewn
          ? `${seam.a.piece}, ${seam.a.long?.text ?? ''}, to ${seam.b.piece}, ${seam.b.long?.text ?? ''}`
          : `${seam.a.piece}, laid on ${seam.b.piece}`}
        {seam.graph && `; ${seam.graph}`}
      </p>
      {seam.unlike && <p className="look">{seam.unlike}</p>}
      <p className="commands">
        <Button type="primary" ghost disabled={!match.laid || seam.gone !== ''} onClick={onSee}>
          See it
        </Button>
        <Button disabled={place <= 0} onClick={() => void act.run(() => calls.order(moved(place - 1)))}>
          Comes earlier
        </Button>
        <Button disabled={place >= order.length - 1} onClick={() => void act.run(() => calls.order(moved(place + 1)))}>
          Comes later
        </Button>
        <Button onClick={() => void act.run(() => calls.takeOut(seam.id))}>Take out</Button>
      </p>
      {act.error && (
        <p className="spoil" role="alert">
          {act.error}
        </p>
      )}
      <DraftScope value={`seam-${seam.id}`}>
        <EntryTick
          label="bars across the garment meet here"
          value={seam.levels}
          onSave={(levels) => change({ levels })}
        />
        <EntryTick
          label="bars along the garment go on over it"
          value={seam.lengthwise}
          onSave={(lengthwise) => change({ lengthwise })}
        />
        <EntryText label="Called" path="name" value={seam.name} onSave={(name) => change({ name })} />
        <div className="two">
          <EntryLength
            label={sewn ? 'Key point, from where it begins' : 'of its edge, this place'}
            path="key_a"
            value={seam.key_a?.text ?? ''}
            onSave={(key_a) => (key_a.trim() ? change({ key_a }) : change({ free_key: true }))}
          />
          {sewn ? (
            <EntryLength
              label={`and on ${seam.b.piece}`}
              path="key_b"
              value={seam.key_b?.text ?? ''}
              onSave={(key_b) => change({ key_b })}
            />
          ) : (
            <span />
          )}
        </div>
        {sewn ? (
          <>
            <div className="two">
              <EntryChoice
                label="Eased in"
                value={seam.longer}
                options={[
                  { value: '', label: 'nothing' },
                  { value: 'a', label: seam.a.piece },
                  { value: 'b', label: seam.b.piece },
                ]}
                onSave={(longer) => change({ longer: longer as '' | 'a' | 'b' })}
              />
              {seam.longer !== '' && (
                <EntryLength
                  label="which is longer by"
                  path="ease"
                  value={seam.ease.text}
                  onSave={(ease) => change({ ease })}
                />
              )}
            </div>
            {seam.longer !== '' && (
              <EntryChoice
                label="and spread"
                value={`${seam.spread[0]}–${seam.spread[1]}`}
                options={SPREADS}
                onSave={(v) => {
                  const [from, to] = v.split('–').map(Number);
                  return change({ spread_from: from ?? 0, spread_to: to ?? 1 });
                }}
              />
            )}
            <p className="commands">
              <Button onClick={() => void act.run(() => change({ same_way: !seam.same_way }))}>
                Let the other ends meet
              </Button>
            </p>
          </>
        ) : (
          <div className="two">
            <EntryLength
              label={`lies on ${seam.b.piece}, up`}
              path="b_along"
              value={seam.at_along?.text ?? ''}
              onSave={(along) => change({ along })}
            />
            <EntryLength
              label="and across, left"
              path="b_across"
              value={seam.at_across?.text ?? ''}
              onSave={(across) => change({ across })}
            />
          </div>
        )}
      </DraftScope>
      {ways.length > 0 && (
        <>
          <h3>What can be done</h3>
          <ul className="plain-list ways-out">
            {ways.map((way) => (
              <li key={way.what}>
                {way.told}{' '}
                {way.what === 'key' && way.key_a !== null && (
                  <Button size="small" onClick={() => void act.run(() => change({ key_a: way.key_a!, free_b: true }))}>
                    Move it there
                  </Button>
                )}
                {way.what === 'first' && (
                  <Button size="small" onClick={() => void act.run(() => calls.order(moved(0)))}>
                    Put it first
                  </Button>
                )}
                {way.what === 'bias' && (
                  <Button size="small" onClick={() => void act.run(() => change({ levels: false, lengthwise: false }))}>
                    Ask nothing here
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
