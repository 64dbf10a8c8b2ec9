import type { Job, Lay } from '../../api/client';

/** The best length over the seconds of the search, towards the bound. */
export function SearchChart({ job, lay }: { job: Job; lay: Lay }) {
  const best = job.progress;
  if (best.length === 0) return null;
  const until = Math.max(job.seconds, 1);
  const high = best[0]![1];
  const low = job.bound?.mm ?? lay.bound.mm;
  const y = (l: number) => 8 + (1 - (l - low) / Math.max(1, high - low)) * 52;
  const x = (s: number) => (s / until) * 300;
  let d = `M0,${y(high)}`;
  for (const [s, l] of best) d += ` H${x(s)} V${y(l)}`;
  const bound = job.bound?.text ?? lay.bound.text;
  return (
    <figure className="search">
      <figcaption>
        length while searching, {job.seconds.toFixed(0)} s, {job.steps} tries
      </figcaption>
      <svg
        viewBox="0 0 304 76"
        role="img"
        aria-label={`From ${best.length} improvements the lay is ${job.length?.text ?? lay.length.text}; it cannot be shorter than ${bound}`}
      >
        <path d={`${d} H300`} />
        <line x1="0" x2="300" y1="60" y2="60" />
        <text x="300" y="74" textAnchor="end">
          cannot be shorter than {bound}
        </text>
      </svg>
    </figure>
  );
}
