import { useAct } from '../app/useAct';
import { Button, Checkbox, Drawer, Input } from 'antd';
import { useState } from 'react';
import type { Load, LoadTask, Washday } from '../api/client';
import { useWashday, useWashdayChanges } from '../api/hooks';
import { Worked } from '../app/Working';
import { endOf, useClock } from '../devices/Timers';
import { EntryText } from '../fields/Entry';
import { ToMeasure } from './ToMeasure';
import { Timeline } from './Timeline';
import { goOn } from '../fields/goOn';

/** A time of day as this person's clocks show it. */
const ofDay = (text: string) =>
  new Date(`2000-01-01T${text.padStart(5, '0')}`).toLocaleTimeString([], { hour: 'numeric', minute: '2-digit' });
const clock = (iso: string) => new Date(iso).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
const day = (iso: string) => new Date(iso).toLocaleDateString([], { weekday: 'short', day: 'numeric', month: 'short' });

function left(ms: number): string {
  const minutes = Math.max(0, Math.ceil(ms / 60_000));
  return minutes >= 60 ? `${Math.floor(minutes / 60)} h ${minutes % 60} min` : `${minutes} min`;
}

function Step({ task, now, onDo }: { task: LoadTask; now: number; onDo: (what: 'begin' | 'end' | 'back') => void }) {
  const running = task.started_at && !task.finished_at;
  const over = running && endOf(task) <= now;
  return (
    <li className={`wash-step ${task.finished_at ? 'done' : running ? 'running' : ''}`}>
      <span className="wash-when">
        {day(task.start_at)} {clock(task.start_at)}–{clock(task.end_at)}
      </span>
      <span>
        <b>{task.what}</b>, {task.machine === 'rest' ? 'anywhere' : task.machine_label},{' '}
        <Worked figure={task.time} label={`time to ${task.what}`}>
          {task.time.text}
        </Worked>
        {task.finished_at && ' ✓'}
        {running && (
          <em className={over ? 'spoil' : 'good'} role="timer">
            {' '}
            {over ? 'time is up' : `${left(endOf(task) - now)} left`}
          </em>
        )}
        {task.late && !over && <em className="look"> runs late</em>}
      </span>
      <span className="wash-do">
        {!task.started_at && task.ready && (
          <Button size="small" onClick={() => onDo('begin')}>
            Begin
          </Button>
        )}
        {!task.finished_at && task.ready && (
          <Button size="small" type={running ? 'primary' : 'text'} onClick={() => onDo('end')}>
            Done
          </Button>
        )}
        {task.started_at && (
          <Button size="small" type="text" onClick={() => onDo('back')}>
            take back
          </Button>
        )}
      </span>
    </li>
  );
}

function LoadCard({ load, now, number }: { load: Load; now: number; number: number }) {
  const changes = useWashdayChanges();
  const { run, error } = useAct((id: number, what: 'begin' | 'end' | 'back') => changes[what](id));
  return (
    <section className="load" aria-label={`Load ${number}`}>
      <h2>
        Load {number}: {load.name}
      </h2>
      <p className="quiet">
        {load.weight ? (
          <>
            <Worked figure={load.weight} label={`weight of ${load.name}`}>
              {load.weight.text}
            </Worked>
            {load.weight.note && ` (${load.weight.note})`}
          </>
        ) : (
          `${load.kilograms.toFixed(1)} kg`
        )}
        ; {load.why}
      </p>
      {load.too_heavy && (
        <p className="look">
          More than half a drum: wash it in the tub, or take it to a larger machine. Wet, it is heavy: lift it in parts.
        </p>
      )}
      <ol>
        {load.tasks.map((t) => (
          <Step key={t.id} task={t} now={now} onDo={(w) => void run(t.id, w)} />
        ))}
      </ol>
      {error && (
        <p className="spoil" role="alert">
          {error}
        </p>
      )}
    </section>
  );
}

function House({ found, onClose }: { found: Washday; onClose: () => void }) {
  const changes = useWashdayChanges();
  return (
    <Drawer closeIcon="Close" open size={380} title="The house" onClose={onClose}>
      <EntryText
        label="The washer takes at most"
        unit={found.washer_unit}
        path="washer_kg"
        value={found.washer}
        onSave={(washer_kg) => changes.house({ washer_kg })}
      />
      <p className="quiet">Half of it is used, so that long lengths have room to move.</p>
      <EntryText
        label="You are up from"
        path="rise"
        value={ofDay(found.rise)}
        onSave={(rise) => changes.house({ rise })}
      />
      <EntryText label="until" path="sleep" value={ofDay(found.sleep)} onSave={(sleep) => changes.house({ sleep })} />
      {found.learned.length > 0 && (
        <>
          <h3>Your own times, in place of the usual ones</h3>
          <ul className="plain-list">
            {found.learned.map((l) => (
              <li key={l.what}>
                {l.what}: {l.minutes} min, from {l.times} {l.times === 1 ? 'time' : 'times'}
              </li>
            ))}
          </ul>
        </>
      )}
    </Drawer>
  );
}

/** The washing day over all projects: loads, the machines' timeline, timers. */
export function WashdayPart() {
  const found = useWashday().data;
  const changes = useWashdayChanges();
  const now = useClock();
  const [house, setHouse] = useState(false);
  const [left, setLeft] = useState<readonly number[]>([]);
  const [wishes, setWishes] = useState({ start: '', washer: '', dryer: '' });
  const {
    run: plan,
    busy,
    error,
  } = useAct(
    async () => {
      const { start, ...taken } = wishes;
      const able = found?.waiting.filter((w) => !w.missing) ?? [];
      await changes.plan({
        cloths: left.length ? able.filter((w) => !left.includes(w.cloth_id)).map((w) => w.cloth_id) : null,
        start,
        taken,
      });
    },
    { once: true },
  );
  if (!found) return <p className="quiet">Fetching …</p>;
  const { loads, waiting, finish_at } = found;
  const able = waiting.filter((w) => !w.missing);
  return (
    <>
      <h1>
        {finish_at
          ? `All is treated, dry and at rest by ${day(finish_at)}, ${clock(finish_at)}`
          : able.length
            ? `${able.length} ${able.length === 1 ? 'cloth waits' : 'cloths wait'} to be treated`
            : 'Nothing waits to be treated'}
      </h1>
      <p className="commands">
        <Button
          type={loads.length === 0 || found.out_of_date ? 'primary' : 'default'}
          loading={busy}
          disabled={loads.length + able.length === 0}
          onClick={() => void plan()}
        >
          {loads.length ? 'Plan anew from now' : 'Plan the day'}
        </Button>
        <Button onClick={() => setHouse(true)}>The house</Button>
        {loads.length > 0 && (
          <a href="/api/washday/plan.ics" download>
            Take it away (calendar)
          </a>
        )}
        {found.out_of_date && (
          <span className="look" role="status">
            {found.out_of_date}
          </span>
        )}
      </p>
      {error && (
        <p className="spoil" role="alert">
          {error}
        </p>
      )}
      {able.length > 0 && (
        <fieldset className="day-wishes">
          <legend>For this plan</legend>
          <div className="three">
            {(
              [
                ['start', 'Begin not before'],
                ['washer', 'The washer is free from'],
                ['dryer', 'The dryer is free from'],
              ] as const
            ).map(([key, label]) => (
              <div key={key} className="entry">
                <label htmlFor={`day-${key}`}>{label}</label>
                <Input
                  id={`day-${key}`}
                  value={wishes[key]}
                  placeholder="now"
                  data-entry="true"
                  onPressEnter={(e) => goOn(e.currentTarget)}
                  onChange={(e) => setWishes({ ...wishes, [key]: e.target.value })}
                />
              </div>
            ))}
          </div>
        </fieldset>
      )}
      {loads.length > 0 && <Timeline loads={loads} now={now} />}
      <div className="loads">
        {loads.map((l, i) => (
          <LoadCard key={l.id} load={l} now={now} number={i + 1} />
        ))}
      </div>
      <ToMeasure cloths={found.to_measure} />
      {waiting.length > 0 && (
        <section aria-label="Waiting">
          <h2>{loads.length ? 'Not in the plan' : 'Waiting'}</h2>
          <ul className="plain-list">
            {waiting.map((w) => (
              <li key={w.cloth_id}>
                {!w.missing && (
                  <Checkbox
                    className="tick day-tick"
                    aria-label={`${w.name} goes into the plan`}
                    checked={!left.includes(w.cloth_id)}
                    onChange={(e) =>
                      setLeft(e.target.checked ? left.filter((id) => id !== w.cloth_id) : [...left, w.cloth_id])
                    }
                  />
                )}{' '}
                <b>{w.name}</b> for {w.project}:{' '}
                {w.missing ? (
                  <span className="look">{w.missing}</span>
                ) : (
                  <>
                    {w.programme};{' '}
                    {w.weight && (
                      <Worked figure={w.weight} label={`weight of ${w.name}`}>
                        {w.weight.text}
                      </Worked>
                    )}
                    {w.weight?.note && <span className="look"> {w.weight.note}</span>}
                  </>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      <p className="quiet">
        The machine maker's limits and the care label come before this plan. Clean the lint filter before and after
        every tumble.
      </p>
      {house && <House found={found} onClose={() => setHouse(false)} />}
    </>
  );
}
