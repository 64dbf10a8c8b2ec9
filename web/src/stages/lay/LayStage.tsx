import { useAct } from '../../app/useAct';
import { onRing } from '../../api/news';
import { keys } from '../../api/keys';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Drawer, Progress, Segmented } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { api, type Job, type Lay, type Project, saved, type Shape, unwrap } from '../../api/client';
import { useAsked, useChanges, useChoices, useProject } from '../../api/hooks';
import { OutOfDate } from '../../app/OutOfDate';
import { waiting, Waits } from '../../app/Waits';
import { Worked } from '../../app/Working';
import { points } from '../../draw/outline';
import { EntryLength, EntryText, EntryTick } from '../../fields/Entry';
import { LayPicture } from '../../lay-table/LayPicture';
import { Stage } from '../../app/Stage';

function useLay() {
  const { id, key, params } = useAsked();
  return useQuery({
    queryKey: keys.lay(id, key),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/lay', { params })),
  });
}

const busy = (job: Job | undefined | null) => job?.state === 'waiting' || job?.state === 'running';

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
  useEffect(
    () => (working ? onRing(() => void client.invalidateQueries({ queryKey: keys.job(id!) })) : undefined),
    [working, client, id],
  );
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

function PieceFacts({ shape }: { shape: Shape }) {
  const edge = shape.edge === 'cut end' ? 'the cut end' : `the ${shape.edge}`;
  return (
    <section aria-label="The chosen piece" className="piece-facts">
      <h2>{shape.name}</h2>
      <p>from the cut end {shape.from_end}</p>
      <p>
        arrow to {edge}{' '}
        <b>
          <Worked figure={shape.tail_figure} label={`tail to ${shape.edge}`}>
            {shape.tail_distance.text}
          </Worked>
        </b>{' '}
        and{' '}
        <b>
          <Worked figure={shape.head_figure} label={`head to ${shape.edge}`}>
            {shape.head_distance.text}
          </Worked>
        </b>
      </p>
      <p>
        {shape.layers === 2 ? 'two layers' : 'one layer'}, {shape.mirrored ? 'turned over' : 'face up'}
        {shape.turn ? `, turned by ${shape.turn}°` : ''}
      </p>
      <p className={shape.lies === 'straight' ? 'good' : 'quiet'}>
        {shape.lies === 'straight' && '✓ '}
        {shape.lies_told}
      </p>
    </section>
  );
}

function Others({ lay, onChoose }: { lay: Lay; onChoose: (id: number) => void }) {
  // all at one scale, the longest and the widest whole
  const longest = Math.max(...lay.alternatives.map((a) => a.length.mm));
  const widest = Math.max(...lay.alternatives.map((a) => a.high - a.low));
  const k = Math.min(110 / longest, 78 / widest);
  return (
    <section aria-label="Other ways to lay it">
      <h2>{lay.alternatives.length > 1 ? 'Ways to lay it' : 'The way it is laid'}</h2>
      {lay.alternatives.map((way) => {
        return (
          <button
            key={way.lay_id}
            type="button"
            className={way.chosen ? 'way chosen' : 'way'}
            aria-pressed={way.chosen}
            onClick={() => onChoose(way.lay_id)}
          >
            <svg width={112} height={(way.high - way.low) * k + 2} aria-hidden="true">
              <rect x={0.5} y={0.5} width={way.length.mm * k} height={(way.high - way.low) * k} className="way-cloth" />
              {way.outlines.map((o, i) => (
                <polygon key={i} points={points(o, k, 0.5, 0.5 + way.high * k)} />
              ))}
            </svg>
            <span>
              <b>{way.label}</b>
              <small>{way.cuts} to pin and cut</small>
            </span>
            <strong>{way.length.text}</strong>
          </button>
        );
      })}
      {lay.refused.map((r) => (
        <p key={r.fold} className="quiet">
          Not {r.label}: {r.why}
        </p>
      ))}
    </section>
  );
}

/** The best length over the seconds of the search, towards the bound. */
function SearchChart({ job, lay }: { job: Job; lay: Lay }) {
  const best = job.progress;
  if (best.length === 0) return null;
  const until = Math.max(job.seconds, 1);
  const high = best[0]![1];
  const low = lay.bound.mm;
  const y = (l: number) => 8 + (1 - (l - low) / Math.max(1, high - low)) * 52;
  const x = (s: number) => (s / until) * 300;
  let d = `M0,${y(high)}`;
  for (const [s, l] of best) d += ` H${x(s)} V${y(l)}`;
  return (
    <figure className="search">
      <figcaption>
        length while searching, {job.seconds.toFixed(0)} s, {job.steps} tries
      </figcaption>
      <svg
        viewBox="0 0 304 76"
        role="img"
        aria-label={`From ${best.length} improvements the lay is ${lay.length.text}; it cannot be shorter than ${lay.bound.text}`}
      >
        <path d={`${d} H300`} />
        <line x1="0" x2="300" y1="60" y2="60" />
        <text x="300" y="74" textAnchor="end">
          cannot be shorter than {lay.bound.text}
        </text>
      </svg>
    </figure>
  );
}

/** Lay: begin, follow, look, choose, take away. */
export function LayStage() {
  const project = useProject().data!;
  const changes = useChanges();
  const choices = useChoices();
  const client = useQueryClient();
  const found = useLay();
  const job = useJob(project);
  const [chosen, setChosen] = useState<string>();
  const [view, setView] = useState<'pinned' | 'opened'>('pinned');
  const [settings, setSettings] = useState(false);
  const lay = found.data?.lay ?? undefined;
  const missing = found.data?.missing ?? '';
  const working = busy(job);
  const drawing = lay ? (view === 'opened' && lay.fold !== 'open' ? lay.opened : lay.pinned) : undefined;
  const shape = drawing?.shapes.find((s) => s.key === chosen);

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
  async function stop() {
    if (job) await saved(api.POST('/api/jobs/{job_id}/cancel', { params: { path: { job_id: job.id } } }));
  }
  async function choose(lay_id: number) {
    changes.keep(await saved(api.POST('/api/projects/{project_id}/lay/choose', { ...changes.path, body: { lay_id } })));
    setChosen(undefined);
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
              onChange={(v) => {
                setView(v);
                setChosen(undefined);
              }}
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
                  ? 'waiting for its turn'
                  : `${job?.seconds.toFixed(0)} of ${job?.asked_seconds} s`}
                {job?.length && `, ${job.length.text} so far`}
              </span>{' '}
              <Button onClick={() => void stop()}>Stop here</Button>
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
              <a href={`/api/projects/${project.id}/lay.json?use=${project.use_id}`} download>
                as JSON
              </a>
            </span>
          )}
        </p>
        {error && (
          <p className="spoil" role="alert">
            {error}
          </p>
        )}
        {job?.state === 'failed' && (
          <p className="spoil" role="alert">
            {job.error}
          </p>
        )}
        {lay && lay.stale.length > 0 && !working && <OutOfDate why={`Out of date: ${lay.stale.join('; ')}.`} />}
        {found.isError && (
          <p className="spoil" role="alert">
            {found.error.message}
          </p>
        )}
        {!lay && !working && (waiting(project, 'lay') ? <Waits project={project} stage="lay" /> : <p>{missing}</p>)}
        {lay && drawing && (
          <LayPicture lay={lay} drawing={drawing} cloth={project.cloth} chosen={chosen} onChoose={setChosen} />
        )}
      </div>
      <aside className="facts">
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
                of the usable cloth in pieces; cannot be shorter than{' '}
                <Worked figure={lay.bound_figure} label="bound">
                  {lay.bound.text}
                </Worked>
              </p>
            </section>
            {shape ? <PieceFacts shape={shape} /> : <p className="quiet">Touch a piece for its distances.</p>}
            <Others lay={lay} onChoose={(id) => void choose(id)} />
            {job && <SearchChart job={job} lay={lay} />}
          </>
        )}
      </aside>
      <Drawer closeIcon="Close" title="How to lay" open={settings} onClose={() => setSettings(false)} size={400}>
        <h3>Ways to try</h3>
        {choices?.folds.map((f) => (
          <EntryTick key={f.value} label={f.label} value={wishes.folds.includes(f.value)} onSave={folds(f.value)} />
        ))}
        <p className="quiet">The single layer takes the least cloth; the fold is quicker to cut.</p>
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
