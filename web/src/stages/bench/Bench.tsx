import { useAct } from '../../app/useAct';
import { keys } from '../../api/keys';
import { useQueryClient } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, type ProjectLine, saved } from '../../api/client';
import { useProjects, useWashday, useSettings } from '../../api/hooks';
import { useSettingsChange, Yours } from '../../app/Yours';
import { useOnce } from '../../app/useOnce';
import { Dot } from '../../app/Rail';
import { Pairing } from '../../devices/Pairing';
import { useClock } from '../../devices/Timers';
import { ClothPattern } from '../../draw/ClothPattern';
import { stageNames } from '../../words/stages';
import { Timeline } from '../../washday/Timeline';
import { Stage } from '../../app/Stage';
import { Archives } from './Archives';
import { Copies } from './Copies';
import { Tip } from '../../app/Tip';

function Strip({ project, onDelete }: { project: ProjectLine; onDelete: () => void }) {
  const id = `strip-${project.id}`;
  const told = project.stages.some((s) => s.name === 'cloth' && s.state !== 'empty');
  return (
    <li className="strip">
      <Link to={`/projects/${project.id}/plan`} className="strip-cloth" aria-label={`Open ${project.name}`}>
        <svg width="100%" height="100%" preserveAspectRatio="none">
          <defs>
            <ClothPattern id={id} cloth={project.cloth} scale={0.32} y0={98} />
          </defs>
          <rect width="100%" height="100%" fill={`url(#${id})`} />
          <rect width="100%" height="100%" fill={`url(#${id}-weave)`} />
          {project.beside.map((cloth, i) => (
            <g key={i}>
              <defs>
                <ClothPattern id={`${id}-${i}`} cloth={cloth} scale={0.32} />
              </defs>
              <rect
                x={`${100 - 14 * (project.beside.length - i)}%`}
                width="14%"
                height="100%"
                fill={`url(#${id}-${i})`}
              />
              <rect
                x={`${100 - 14 * (project.beside.length - i)}%`}
                width="14%"
                height="100%"
                fill={`url(#${id}-${i}-weave)`}
              />
              <line
                x1={`${100 - 14 * (project.beside.length - i)}%`}
                x2={`${100 - 14 * (project.beside.length - i)}%`}
                y2="100%"
                className="strip-seam"
              />
            </g>
          ))}
        </svg>
        <span className="strip-label">
          <strong>{project.name}</strong>
          <span>{project.note}</span>
        </span>
      </Link>
      <div className="strip-facts">
        <ol className="strip-dots">
          {project.stages.map((s) => (
            <li key={s.name}>
              <Tip title={s.why}>
                <Link to={`/projects/${project.id}/${s.name}`} aria-label={`${project.name}: ${stageNames[s.name]}`}>
                  <Dot state={s.state} size={18} />
                  <span>{stageNames[s.name]}</span>
                </Link>
              </Tip>
            </li>
          ))}
        </ol>
        <p>
          {[project.cloth, ...project.beside]
            .map((c) => c.name)
            .filter(Boolean)
            .join(', ') || (told ? 'a cloth without a name' : 'no cloth yet')}
          {project.buying && (
            <>
              ; <b>{project.buying}</b>
            </>
          )}
        </p>
        <p className="next">{project.next_step}</p>
      </div>
      <Button type="text" onClick={onDelete} aria-label={`Put ${project.name} away`}>
        Put away
      </Button>
    </li>
  );
}

/** The loads of the next day and night, when there is a plan. */
function Today() {
  const day = useWashday(true).data;
  const now = useClock(15_000);
  if (!day || day.loads.length === 0) return null;
  return (
    <section aria-label="Washing day" className="today">
      <h2>
        <Link to="/washday">Washing day</Link>
      </h2>
      <Timeline loads={day.loads} now={now} only={24} />
    </section>
  );
}

/** What it does and in which order, before there is anything; and what holds for everything, asked once. */
function FirstDay() {
  const go = useNavigate();
  const settings = useSettings();
  const change = useSettingsChange();
  const [busy, look] = useOnce(async () => {
    const garment = await saved(api.POST('/api/projects/example'));
    void go(`/projects/${garment.id}/plan`);
  });
  return (
    <section aria-label="First day" className="first-day">
      <ol>
        <li>
          <b>Tell the pieces and the cloth.</b> Type what the tape says, or read a drawing; wash a swatch, and the
          shrinkage is worked out.
        </li>
        <li>
          <b>See how much to buy and how to treat it.</b> The pieces are laid on the washed width; what is bought is
          never too little.
        </li>
        <li>
          <b>Straighten the grain and lay it.</b> Each piece has its distances from the selvage, ready to be pinned.
        </li>
      </ol>
      <p>
        <Button loading={busy} onClick={() => void look()}>
          Look at an example garment
        </Button>{' '}
        <span className="quiet">An overshirt in a linen stripe; put it away when you have seen it.</span>
      </p>
      {settings && !settings.asked && (
        <fieldset>
          <legend>Once, for everything you make</legend>
          <Yours />
          <Button onClick={() => void change({ asked: true })}>That is right</Button>
        </fieldset>
      )}
    </section>
  );
}

/** Home: every project as a strip of its own cloth, and what is next. */
export function Bench() {
  const client = useQueryClient();
  const go = useNavigate();
  const list = useProjects();
  const [name, setName] = useState('');

  const {
    run: begin,
    busy,
    error,
  } = useAct(
    async () => {
      const project = await saved(api.POST('/api/projects', { body: { name, note: '' } }));
      await client.invalidateQueries({ queryKey: keys.projects });
      void go(`/projects/${project.id}/plan`);
    },
    { once: true },
  );

  async function away(project: ProjectLine) {
    const path = { params: { path: { project_id: project.id } } };
    client.setQueryData(keys.projects, await saved(api.DELETE('/api/projects/{project_id}', path)));
  }

  return (
    <Stage className="bench">
      <h1>{list.data?.headline ?? 'Fetching …'}</h1>
      <form
        className="bench-new"
        onSubmit={(e) => {
          e.preventDefault();
          void begin();
        }}
      >
        <label htmlFor="new-project">A new project</label>
        <Input
          id="new-project"
          value={name}
          onChange={(e) => setName(e.target.value)}
          placeholder="such as Summer skirt"
          status={error ? 'error' : undefined}
        />
        <Button type="primary" htmlType="submit" loading={busy}>
          Begin
        </Button>
        {error && (
          <span className="say spoil" role="alert">
            {error}
          </span>
        )}
      </form>
      {list.data?.projects.length === 0 && <FirstDay />}
      <Today />
      {list.isError && <p className="spoil">{list.error.message}</p>}
      <ul className="strips">
        {list.data?.projects.map((p) => (
          <Strip key={p.id} project={p} onDelete={() => void away(p)} />
        ))}
      </ul>
      <Archives />
      <Copies />
      <Pairing />
    </Stage>
  );
}
