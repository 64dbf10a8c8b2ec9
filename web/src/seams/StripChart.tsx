import type { Strip } from '../api/client';

const WIDE = 520;
const HIGH = 120;
/** Where bars meet, and from where it is plainly seen, mm: the limits that are told below. */
type Limits = { good: number; bad: number };

/** The mismatch along one seam in millimetres, with the band in which bars meet. */
export function StripChart({
  strip,
  limits,
  unit,
}: {
  strip: Strip;
  limits: Limits;
  unit: { mm: number; unit: string };
}) {
  const long = Math.max(1, ...strip.places.map((p) => p[0]!));
  const top = Math.max(limits.bad * 1.4, strip.worst * 1.1);
  const x = (s: number) => 48 + (s / long) * (WIDE - 58);
  const y = (m: number) => HIGH / 2 - (m / top) * (HIGH / 2 - 10);
  // from half a repeat before to half a repeat behind it is one step, and no line
  const jump = (i: number) => i === 0 || Math.abs(strip.places[i]![1]! - strip.places[i - 1]![1]!) > top;
  const line = strip.places
    .map((p, i) => `${jump(i) ? 'M' : 'L'}${x(p[0]!).toFixed(1)},${y(p[1]!).toFixed(1)}`)
    .join(' ');
  const told = (m: number) => (unit.unit === 'in' ? `${(m / 25.4).toFixed(2)} in` : `${m} mm`);
  // what would be written over its neighbour is left out
  const far = Math.floor(top);
  const ticks = [0, limits.good, -limits.good, limits.bad, -limits.bad, far, -far].reduce<number[]>(
    (kept, m) =>
      (m === 0 || Math.abs(y(m) - y(0)) > 14) && kept.every((k) => Math.abs(y(k) - y(m)) > 14) ? [...kept, m] : kept,
    [],
  );
  return (
    <figure className="seam-strip">
      <figcaption>
        {strip.way === 'levels' ? 'Bars across the garment' : 'Bars along the garment'}: {strip.kind_told}
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDE} ${HIGH + 16}`}
        role="img"
        aria-label={`Along the seam the bars miss each other by at most ${told(Number(strip.worst.toFixed(1)))}, on the whole by ${told(Number(strip.mean.toFixed(1)))}`}
      >
        <rect className="band-bad" x={48} width={WIDE - 58} y={y(limits.bad)} height={y(-limits.bad) - y(limits.bad)} />
        <rect
          className="band-good"
          x={48}
          width={WIDE - 58}
          y={y(limits.good)}
          height={y(-limits.good) - y(limits.good)}
        />
        {ticks.map((m) => (
          <text key={m} x={44} y={y(m) + 4} textAnchor="end">
            {told(Math.abs(m))}
          </text>
        ))}
        <path d={line} className="strip-line" />
        <text x={48} y={HIGH + 12}>
          where sewing begins
        </text>
        <text x={WIDE - 10} y={HIGH + 12} textAnchor="end">
          {(long / unit.mm).toFixed(1)} {unit.unit} on
        </text>
      </svg>
    </figure>
  );
}
