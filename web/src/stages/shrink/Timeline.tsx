import type { Load } from "../../api/client";
import { useSize } from "../../cloth-view/useSize";

const ROWS = [
  { key: "washer", label: "washer" },
  { key: "basin", label: "tub" },
  { key: "dryer", label: "dryer" },
  { key: "line", label: "line" },
  { key: "flat", label: "flat" },
  { key: "board", label: "board" },
];
const LEFT = 62;
const ROW = 30;
const TOP = 26;
const HOUR = 3_600_000;

/** Washer, tub, dryer, line and board over the hours, with a line for now. */
export function Timeline({ loads, now }: { loads: Load[]; now: number }) {
  const { ref, width } = useSize<HTMLDivElement>();
  const tasks = loads.flatMap((load, number) => load.tasks.filter((t) => t.machine !== "rest").map((task) => ({ task, load, number })));
  const rows = ROWS.filter((r) => tasks.some(({ task }) => task.machine === r.key));
  const from = Math.floor(Math.min(now, ...tasks.map(({ task }) => Date.parse(task.start_at))) / HOUR) * HOUR;
  const until = Math.ceil(Math.max(now, ...tasks.map(({ task }) => Date.parse(task.end_at))) / HOUR) * HOUR;
  const scale = Math.max(0.0001, (width - LEFT - 10) / Math.max(HOUR, until - from));
  const x = (t: number) => LEFT + (t - from) * scale;
  const hours = (until - from) / HOUR;
  const every = [1, 2, 3, 6, 12, 24].find((h) => h * HOUR * scale >= 44) ?? 24;
  const ticks = Array.from({ length: Math.floor(hours) + 1 }, (_, i) => from + i * HOUR).filter((t) => new Date(t).getHours() % every === 0);
  const high = TOP + rows.length * ROW;
  const told = tasks.map(({ task, load }) => `${task.machine}: ${task.what}, ${load.name}`).join("; ");
  return (
    <div ref={ref} className="timeline">
      {width > 0 && (
        <svg width={width} height={high + 22} role="img" aria-label={`The plan. ${told}`}>
          {ticks.map((t) => {
            const midnight = new Date(t).getHours() === 0;
            return (
              <g key={t} className={midnight ? "midnight" : undefined}>
                <line x1={x(t)} x2={x(t)} y1={TOP - 4} y2={high} />
                <text x={x(t)} y={TOP - 10} textAnchor="middle">
                  {midnight ? new Date(t).toLocaleDateString([], { weekday: "short" }) : String(new Date(t).getHours()).padStart(2, "0")}
                </text>
              </g>
            );
          })}
          {rows.map((r, i) => (
            <text key={r.key} x={LEFT - 8} y={TOP + i * ROW + 19} textAnchor="end" className="timeline-row">{r.label}</text>
          ))}
          {tasks.map(({ task, load, number }) => {
            const row = rows.findIndex((r) => r.key === task.machine);
            const [a, b] = [x(Date.parse(task.start_at)), x(Date.parse(task.end_at))];
            const label = `${number + 1} ${load.name}`;
            const fits = Math.floor((b - a - 10) / 7.2);
            return (
              <g key={task.id} className={`slot ${task.finished_at ? "done" : task.started_at ? "running" : ""}`}>
                <title>{`${task.what}: ${load.name}`}</title>
                <rect x={a} y={TOP + row * ROW + 3} width={Math.max(2, b - a)} height={ROW - 6} rx={3} />
                {fits >= 1 && <text x={a + 6} y={TOP + row * ROW + 20}>{label.length > fits ? label.slice(0, Math.max(1, fits - 1)) + (fits > 3 ? "…" : "") : label}</text>}
              </g>
            );
          })}
          <line className="now" x1={x(now)} x2={x(now)} y1={TOP - 4} y2={high + 4} />
          <text className="now-text" x={Math.min(width - 60, x(now) + 4)} y={high + 17}>
            now {new Date(now).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" })}
          </text>
        </svg>
      )}
    </div>
  );
}
