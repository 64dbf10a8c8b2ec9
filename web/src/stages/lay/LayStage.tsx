import { useAct } from '../../app/useAct';
import { onRing } from '../../api/news';
import { keys } from '../../api/keys';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Drawer, Dropdown, Progress, Segmented, Upload } from 'antd';
import { useCallback, useEffect, useRef, useState } from 'react';
import { api, type Job, type Gesture, type Project, saved, unwrap } from '../../api/client';
import { useAsked, useChanges, useChoices, useProject } from '../../api/hooks';
import { OutOfDate } from '../../app/OutOfDate';
import { Tip } from '../../app/Tip';
import { waiting, Waits } from '../../app/Waits';
import { Worked } from '../../app/Working';
import { EntryChoice, EntryLength, EntryText, EntryTick } from '../../fields/Entry';
import { LayPicture } from '../../lay-table/LayPicture';
import { useGesture } from '../../lay-table/useGesture';
import { BrokenRules } from './BrokenRules';
import { Compare } from './Compare';
import { Foldings } from './Foldings';
import { Gestures, PieceFacts, Steps } from './PieceFacts';
import { PieceList } from './PieceList';
import { SeamsBeside } from './SeamsBeside';
import { SearchChart } from './SearchChart';
import { Ways } from './Ways';
import { Stage } from '../../app/Stage';

function useLay() {
  const { id, key, params } = useAsked();
  return useQuery({
    queryKey: keys.lay(id, key),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/lay', { params })),
  });
}

/** Its place among what waits. */
const waitsFor = (ahead: number) =>
  ahead === 0
    ? 'waiting for its turn, the next one'
    : `waiting for its turn, after ${ahead} other ${ahead === 1 ? 'search' : 'searches'}`;

const busy = (job: Job | undefined | null) => job?.state === 'waiting' || job?.state === 'running';

/** When a laying that has just begun is asked after, whatever is heard, ms. */
const EARLY = [60, 150, 300, 600];

/** Follows a laying; each time it got shorter, the picture is fetched again. */
function useJob(project: Project) {
  const client = useQueryClient();
  const id = project.job?.id;
  const job = useQuery({
    queryKey: keys.job(id!),
    enabled: id !== undefined,
    initialData: project.job ?? undefined,
    staleTime: 0,
    queryFn: () => unwrap(api.GET('/api/jobs/{job_id}', { params: { path: { job_id: id! } } })),
  }).data;
  const working = busy(job);
  useEffect(() => {
    if (!working) return undefined;
    const ask = () => void client.invalidateQueries({ queryKey: keys.job(id!) });
    // the first lay may be told of before this page listens
    const early = EARLY.map((ms) => setTimeout(ask, ms));
    const deaf = onRing(ask);
    return () => {
      early.forEach(clearTimeout);
      deaf();
    };
  }, [working, client, id]);
  const news = `${job?.state}:${job?.length?.mm ?? ''}`;
  const before = useRef(news);
  useEffect(() => {
    if (before.current === news) return;
    before.current = news;
    void client.invalidateQueries({ queryKey: keys.lay(project.id) });
    void client.invalidateQueries({ queryKey: keys.project(project.id) });
  }, [news, client, project.id]);
  return job;
}

/** A setting of the hand that stays on until it is put off. */
function Toggle({
  on,
  onChange,
  label,
  told,
}: {
  on: boolean;
  onChange: (on: boolean) => void;
  label: string;
  told: string;
}) {
  return (
    <Tip title={told}>
      <Button type={on ? 'primary' : 'default'} ghost={on} aria-pressed={on} onClick={() => onChange(!on)}>
        {label}
      </Button>
    </Tip>
  );
}

type Side = 'ways' | 'pieces' | 'folding' | 'seams';

/** Lay: begin, follow, look, lay by hand, choose, take away. */
export function LayStage() {
  const project = useProject().data!;
  const changes = useChanges();
  const choices = useChoices();
  const client = useQueryClient();
  const found = useLay();
  const job = useJob(project);
  const [chosen, setChosen] = useState<string[]>([]);
  const [several, setSeveral] = useState(false);
  const [loose, setLoose] = useState(false);
  const [measuring, setMeasuring] = useState(false);
  const [side, setSide] = useState<Side>('ways');
  const [view, setView] = useState<'pinned' | 'opened'>('pinned');
  const [settings, setSettings] = useState(false);
  const [comparing, setComparing] = useState(false);
  const lay = found.data?.lay ?? undefined;
  const missing = found.data?.missing ?? '';
  const working = busy(job);
  const drawing = lay ? (view === 'opened' && lay.fold !== 'open' ? lay.opened : lay.pinned) : undefined;
  const picked = lay?.pinned.shapes.filter((s) => chosen.includes(s.pinned)) ?? [];
  const shape = chosen.length === 1 ? drawing?.shapes.find((s) => s.pinned === chosen[0]) : undefined;
  const hand = useGesture(lay?.lay_id ?? 0);
  const { run: doOn } = hand;
  const onDo = useCallback((gesture: Gesture) => doOn(gesture), [doOn]);

  const {
    run: begin,
    busy: asking,
    error,
  } = useAct(
    async () => {
      const next = await saved(api.POST('/api/projects/{project_id}/lays', { ...changes.path, body: { seed: 1 } }));
      client.setQueryData(keys.job(next.id), next);
      client.setQueryData<Project>(keys.project(project.id, changes.key), (old) => (old ? { ...old, job: next } : old));
    },
    { once: true },
  );
  async function close(how: 'along' | 'anywhere' | 'mend') {
    try {
      const next = await saved(
        api.POST('/api/projects/{project_id}/lays/{lay_id}/close', {
          params: { path: { project_id: project.id, lay_id: lay!.lay_id }, query: changes.query },
          body: { how, seed: 1 },
        }),
      );
      client.setQueryData(keys.job(next.id), next);
      client.setQueryData<Project>(keys.project(project.id, changes.key), (old) => (old ? { ...old, job: next } : old));
      hand.forget();
    } catch (fault) {
      hand.say((fault as Error).message);
    }
  }
  async function stop() {
    if (job) await saved(api.POST('/api/jobs/{job_id}/cancel', { params: { path: { job_id: job.id } } }));
  }
  async function takeIn(file: File) {
    try {
      const body = { text: await file.text() };
      hand.keep(await saved(api.POST('/api/projects/{project_id}/lay/outside', { ...changes.path, body })));
      setSettings(false);
    } catch (fault) {
      hand.say((fault as Error).message);
    }
  }
  async function choose(lay_id: number) {
    changes.keep(await saved(api.POST('/api/projects/{project_id}/lay/choose', { ...changes.path, body: { lay_id } })));
    setChosen([]);
    hand.forget();
  }
  const { wishes } = project;
  const width = project.tally.find((t) => t.key === 'width');
  const folds = (fold: string) => (on: boolean) =>
    changes.lay({ folds: on ? [...wishes.folds, fold] : wishes.folds.filter((f) => f !== fold) });

  return (
    <Stage className="with-facts">
      <div className="picture-side">
        <h1>
          {lay ? (
            <>
              <Worked figure={lay.length_figure} label="length of the lay">
                {lay.length.text}
              </Worked>{' '}
              of cloth, {lay.fold_label}
              {lay.own && `: ${lay.own}`}
            </>
          ) : working ? (
            'Laying …'
          ) : found.isPending ? (
            'Fetching …'
          ) : found.isError ? (
            'The lay could not be fetched'
          ) : (
            'Nothing is laid yet'
          )}
        </h1>
        <p className="commands">
          {/* what stops it is somewhere else: a second touch on the same place stops nothing */}
          <Button
            type={waiting(project, 'lay') ? 'default' : 'primary'}
            data-main={waiting(project, 'lay') ? undefined : true}
            disabled={!project.can_lay || working}
            loading={asking}
            onClick={() => void begin()}
          >
            {working ? 'Laying …' : lay ? 'Lay again' : 'Lay the pieces'}
          </Button>
          <Button onClick={() => setSettings(true)}>How to lay</Button>
          {lay && lay.fold !== 'open' && (
            <Segmented<'pinned' | 'opened'>
              aria-label="How to look at it"
              value={view}
              onChange={setView}
              options={[
                { value: 'pinned', label: 'as pinned' },
                { value: 'opened', label: 'opened out' },
              ]}
            />
          )}
          {working && (
            <span className="progress">
              <span role="status">
                <Progress
                  className="bar"
                  aria-label="Time searched"
                  percent={job ? Math.min(100, Math.round((100 * job.seconds) / job.asked_seconds)) : 0}
                  showInfo={false}
                  size="small"
                />{' '}
                {job?.state === 'waiting'
                  ? waitsFor(job.ahead)
                  : `${job?.seconds.toFixed(0)} of ${job?.asked_seconds} s`}
                {job?.length && `, ${job.length.text} so far`}
              </span>{' '}
              <Button onClick={() => void stop()}>Good enough</Button>
            </span>
          )}
          {lay && (
            <span className="takeaway">
              <a
                href={`/api/projects/${project.id}/lay.svg?use=${project.use_id}&view=${lay.fold === 'open' ? 'pinned' : view}`}
                download
              >
                Take it away 1:1 (SVG)
              </a>
              <button type="button" className="as-link" onClick={() => window.print()}>
                Print
              </button>
              <a href={`/api/projects/${project.id}/lay.json?use=${project.use_id}`} download>
                as JSON
              </a>
            </span>
          )}
        </p>
        {lay && (
          <p className="commands hands" role="group" aria-label="By hand">
            <Toggle on={several} onChange={setSeveral} label="Several" told="choose more than one by touching" />
            <Toggle on={loose} onChange={setLoose} label="Rules off" told="over flaws and into selvages, on purpose" />
            <Toggle on={measuring} onChange={setMeasuring} label="Tape" told="measure between two places" />
            <Dropdown
              trigger={['click']}
              disabled={working}
              menu={{
                items: [
                  { key: 'push', label: 'Push together: along only, at once' },
                  { key: 'along', label: 'Search on: along only' },
                  { key: 'anywhere', label: 'Search on: anywhere but what is locked' },
                ],
                onClick: ({ key }) => void (key === 'push' ? onDo({ do: 'push' }) : close(key as 'along' | 'anywhere')),
              }}
            >
              <Button>Close up …</Button>
            </Dropdown>
            <Button onClick={() => void onDo({ do: 'lock-all' })}>Lock all</Button>
            <Button onClick={() => void onDo({ do: 'empty' })}>From the tray</Button>
            <Button onClick={() => setComparing(true)}>Compare</Button>
          </p>
        )}
        {(error || hand.refused) && (
          <p className="spoil" role="alert">
            {error || hand.refused}
          </p>
        )}
        {job?.state === 'failed' && (
          <p className="spoil" role="alert">
            {job.error}
          </p>
        )}
        {lay && lay.stale.length > 0 && !working && <OutOfDate why={`Out of date: ${lay.stale.join('; ')}.`} />}
        {lay?.shorter && !working && (
          <p className="quiet-found" role="status">
            Searched on quietly: {lay.shorter.would_do} would do instead of {lay.shorter.instead_of}.{' '}
            <Button size="small" onClick={() => void choose(lay.shorter!.lay_id)}>
              Go by that lay
            </Button>
          </p>
        )}
        {lay && lay.own && lay.stale.length > 0 && !working && (
          <p className="look">
            {lay.broken.length === 0
              ? 'Every piece of this lay still lies right. '
              : `${lay.broken.length} of its rules would be broken: they are marked in the picture. `}
            <Button size="small" onClick={() => void close('mend')}>
              Lay only what breaks again
            </Button>
          </p>
        )}
        {found.isError && (
          <p className="spoil" role="alert">
            {found.error.message}
          </p>
        )}
        {!lay && !working && (waiting(project, 'lay') ? <Waits project={project} stage="lay" /> : <p>{missing}</p>)}
        {lay && drawing && (
          <LayPicture
            lay={lay}
            drawing={drawing}
            cloth={project.cloth}
            chosen={chosen}
            onChoose={setChosen}
            onDo={onDo}
            several={several}
            loose={loose}
            measuring={measuring}
          />
        )}
      </div>
      <aside className="facts lay-facts">
        {lay && (
          <>
            <section aria-label="The cloth">
              <h2>{project.cloth.name || 'The cloth'}</h2>
              <p>
                {width?.figure?.text} {width?.label}
              </p>
              <p>
                {drawing?.shapes.length} to pin, {lay.opened.shapes.length} pieces cut;{' '}
                <Worked figure={lay.used_figure} label="share of the cloth in pieces">
                  {lay.used_figure.text}
                </Worked>{' '}
                of the usable cloth in pieces
                {lay.bound.mm > 0 && (
                  <>
                    ; cannot be shorter than{' '}
                    <Worked figure={lay.bound_figure} label="bound">
                      {lay.bound.text}
                    </Worked>
                  </>
                )}
              </p>
            </section>
            {lay.border_left.map((b) => (
              <p key={b.side} className="quiet">
                Of the border along the {b.side === 'low' ? 'near' : 'far'} selvage {b.left.text} is left, at most{' '}
                {b.longest.text} in one.
              </p>
            ))}
            {shape && <PieceFacts shape={shape} lay={lay} choices={choices} onDo={onDo} />}
            {picked.length > 1 && <h2>{picked.length} pieces chosen</h2>}
            {picked.length > 0 && view === 'pinned' && (
              <Gestures shapes={picked} folded={lay.fold !== 'open'} loose={loose} onDo={onDo} />
            )}
            {shape && view === 'pinned' && (
              <Steps lay={lay} shape={shape} loose={loose} onDo={onDo} onChoose={setChosen} />
            )}
            {picked.length === 0 && (
              <p className="quiet">Touch a piece for its distances; drag it to lay it elsewhere.</p>
            )}
            <BrokenRules lay={lay} onDo={onDo} onChoose={setChosen} />
            <Segmented<Side>
              aria-label="Beside the cloth"
              block
              value={side}
              onChange={setSide}
              options={[
                { value: 'ways', label: 'Ways' },
                { value: 'pieces', label: 'Pieces' },
                { value: 'folding', label: 'Folding' },
                { value: 'seams', label: 'Seams' },
              ]}
            />
            {side === 'ways' && (
              <Ways lay={lay} onChoose={(id) => void choose(id)} onDo={(gesture, of) => doOn(gesture, of)} />
            )}
            {side === 'pieces' && drawing && <PieceList shapes={drawing.shapes} chosen={chosen} onChoose={setChosen} />}
            {side === 'seams' && <SeamsBeside />}
            {side === 'folding' && <Foldings lay={lay} width={lay.opened.high} choices={choices} onDo={onDo} />}
            {job && <SearchChart job={job} lay={lay} />}
          </>
        )}
      </aside>
      <Drawer
        closeIcon="Close"
        title="All lays side by side"
        open={comparing}
        onClose={() => setComparing(false)}
        size="large"
        destroyOnHidden
      >
        <Compare onChoose={(id) => void choose(id)} />
      </Drawer>
      <Drawer closeIcon="Close" title="How to lay" open={settings} onClose={() => setSettings(false)} size={400}>
        <h3>Ways to try</h3>
        {choices?.folds.map((f) => (
          <EntryTick key={f.value} label={f.label} value={wishes.folds.includes(f.value)} onSave={folds(f.value)} />
        ))}
        <p className="quiet">
          The single layer takes the least cloth; a fold is quicker to cut. What a cloth does not allow is refused with
          its reason.
        </p>
        <EntryChoice
          label="Folded with"
          value={wishes.sides}
          options={choices?.sides ?? []}
          onSave={(v) => changes.lay({ sides: v as 'together' | 'out' })}
        />
        {choices?.sides.map((one) => (
          <p key={one.value} className="quiet">
            {one.label}
          </p>
        ))}
        {project.cloth.bars_along.length + project.cloth.bars_across.length > 0 && (
          <>
            <EntryTick
              label="Turn pieces on bars that are not balanced"
              value={wishes.turn_on_bars}
              onSave={(turn_on_bars) => changes.lay({ turn_on_bars })}
            />
            <p className="quiet">
              Their points still meet, but on a turned piece the bars run in the other order. Buy tells what it saves;
              nap and one-way prints are never turned.
            </p>
          </>
        )}
        <EntryLength
          label="Room between pieces, to cut"
          path="gap"
          value={wishes.gap.text}
          onSave={(gap) => changes.lay({ gap })}
        />
        <h3>A lay from outside</h3>
        <p className="quiet">
          A lay of these pieces in the open format “idle-selvage/lay/1”, as this page takes it away. One that is found
          on a diagram is laid by hand: “From the tray” begins with everything beside the cloth.
        </p>
        <Upload
          accept=".json,application/json"
          showUploadList={false}
          beforeUpload={(file) => {
            void takeIn(file);
            return false;
          }}
        >
          <Button>Take in a lay (JSON)</Button>
        </Upload>
        {hand.refused && (
          <p className="spoil" role="alert">
            {hand.refused}
          </p>
        )}
        <h3>Searching</h3>
        <EntryText
          label="Time to search"
          unit="s"
          path="lay_seconds"
          value={String(wishes.lay_seconds)}
          onSave={(v) => changes.lay({ lay_seconds: /^\d+$/.test(v.trim()) ? Number(v) : (v as unknown as number) })}
        />
      </Drawer>
    </Stage>
  );
}
