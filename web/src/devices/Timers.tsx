import { Button } from 'antd';
import { useEffect, useRef, useState } from 'react';
import type { LoadTask } from '../api/client';
import { useWashday, useWashdayChanges } from '../api/hooks';

/** Three short tones; a page that was not touched yet may not sound, so the bar says it too. */
function ring() {
  try {
    const context = new AudioContext();
    for (const [i, pitch] of [660, 880, 660].entries()) {
      const tone = context.createOscillator();
      const loud = context.createGain();
      tone.frequency.value = pitch;
      loud.gain.value = 0.15;
      tone.connect(loud).connect(context.destination);
      tone.start(context.currentTime + i * 0.35);
      tone.stop(context.currentTime + i * 0.35 + 0.25);
    }
  } catch {
    // no sound here
  }
}

export function useClock(every = 1000): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), every);
    return () => clearInterval(timer);
  }, [every]);
  return now;
}

export const endOf = (task: LoadTask) => new Date(task.end_at).getTime();

/** A bar across the top of whatever screen is open when a step's time is up. */
export function Timers() {
  const day = useWashday(true).data;
  const changes = useWashdayChanges();
  const now = useClock();
  const [quiet, setQuiet] = useState<number[]>([]);
  const rung = useRef<number[]>([]);
  const running = (day?.loads ?? []).flatMap((load) =>
    load.tasks.filter((t) => t.started_at && !t.finished_at && t.machine !== 'rest').map((task) => ({ task, load })),
  );
  const up = running.filter(({ task }) => endOf(task) <= now && !quiet.includes(task.id));
  const key = up.map(({ task }) => task.id).join();
  useEffect(() => {
    const fresh = up.filter(({ task }) => !rung.current.includes(task.id));
    if (fresh.length === 0) return undefined;
    rung.current.push(...fresh.map(({ task }) => task.id));
    if (fresh.some(({ task }) => task.rings)) ring();
    const title = document.title;
    document.title = `Done: ${fresh[0]!.task.what}`;
    return () => {
      document.title = title;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `key` stands for the steps that are up
  }, [key]);
  if (up.length === 0) return null;
  return (
    <div className="timers" role="alert">
      {up.map(({ task, load }) => (
        <p key={task.id}>
          <b>{task.what}</b>, {load.name}: the time is up.
          <Button size="small" onClick={() => void changes.end(task.id)}>
            Done
          </Button>
          <Button size="small" onClick={() => setQuiet([...quiet, task.id])}>
            Not yet
          </Button>
        </p>
      ))}
    </div>
  );
}
