import type { Load } from '../api/client';
import { useSize } from '../draw/useSize';

const ROWS = ['washer', 'basin', 'dryer', 'line', 'flat', 'board'];
const LEFT = 104;
const TOP = 26;
const HOUR = 3_600_000;

/** Washer, tub, dryer, line and board over the hours, with a line for now; `only` shows only the next few, lower. */
export function Timeline({ loads, now, only }: { loads: Load[]; now: number; only?: number }) {
  const ROW = only ? 24 : 30;
  const { ref, width } = useSize<HTMLDivElement>();
  const tasks = loads.flatMap((load, number) =>
    load.tasks.filter((t) => t.machine !== 'rest').map((task) => ({ task, load, number })),
  );
  const labels = new Map(tasks.map(({ task }) => [task.machine, task.machine_label]));
  const rows = ROWS.filter((r) => labels.has(r));
  const from = Math.floor(Math.min(now, ...tasks.map(({ task }) => Date.parse(task.start_at))) / HOUR) * HOUR;
  const end = Math.ceil(Math.max(now, ...tasks.map(({ task }) => Date.parse(task.end_at))) / HOUR) * HOUR;
  const until = only ? Math.min(end, from + only * HOUR) : end;
  const scale = Math.max(1e-9, (width - LEFT - 10) / Math.max(HOUR, until - from));
  const x = (t: number) => LEFT + (t - from) * scale;
  const hours = (until - from) / HOUR;
  const every = [1, 2, 3, 6, 12, 24].find((h) => h * HOUR * scale >= 44) ?? 24;
  const ticks = Array.from({ length: Math.floor(hours) + 1 }, (_, i) => from + i * HOUR).filter(
    (t) => new Date(t).getHours() % every === 0,
  );
  const high = TOP + rows.length * ROW;
  const told = tasks.map(({ task, load }) => `${task.machine}: ${task.what}, ${load.name}`).join('; ');
  return (
    <div ref={ref} className="timeline">
      {width > 0 && (
        <svg width={width} height={high + 22} role="img" aria-label={`The plan. ${told}`}>
          {ticks.map((t) => {
            const midnight = new Date(t).getHours() === 0;
            return (
              <g key={t} className={midnight ? 'midnight' : undefined}>
                <line x1={x(t)} x2={x(t)} y1={TOP - 4} y2={high} />
                <text x={x(t)} y={TOP - 10} textAnchor="middle">
                  {midnight
                    ? new Date(t).toLocaleDateString([], { weekday: 'short' })
                    : String(new Date(t).getHours()).padStart(2, '0')}
                </text>
              </g>
            );
          })}
          {rows.map((r, i) => (
            <text key={r} x={LEFT - 8} y={TOP + i * ROW + ROW / 2 + 5} textAnchor="end" className="timeline-row">
              {labels.get(r)}
            </text>
          ))}
          {tasks.map(({ task, load, number }) => {
            const row = rows.indexOf(task.machine);
            const [a, b] = [x(Date.parse(task.start_at)), x(Math.min(until, Date.parse(task.end_at)))];
            if (b <= a) return null;
            const label = `${number + 1} ${load.name}`;
            const fits = Math.floor((b - a - 10) / 7.2);
            return (
              <g key={task.id} className={`slot ${task.finished_at ? 'done' : task.started_at ? 'running' : ''}`}>
                <title>{`${task.what}: ${load.name}`}</title>
                <rect x={a} y={TOP + row * ROW + 3} width={Math.max(2, b - a)} height={ROW - 6} rx={3} />
                {fits >= 1 && (
                  <text x={a + 6} y={TOP + row * ROW + ROW / 2 + 5}>
                    {label.length > fits ? label.slice(0, Math.max(1, fits - 1)) + (fits > 3 ? '…' : '') : label}
                  </text>
                )}
              </g>
            );
          })}
          <line className="now" x1={x(now)} x2={x(now)} y1={TOP - 4} y2={high + 4} />
          <text className="now-text" x={Math.min(width - 60, x(now) + 4)} y={high + 17}>
            now {new Date(now).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}
          </text>
        </svg>
      )}
    </div>
  );
}
