import type { Cycle } from '../../api/client';

const HIGH = 62;
const BASE = 84;

/** Shrinkage in all after each wash, warp and weft side by side. */
export function CyclesChart({ cycles }: { cycles: Cycle[] }) {
  const values = cycles.flatMap((c) => [c.warp?.value ?? 0, c.weft?.value ?? 0]);
  const top = Math.max(1, ...values);
  const step = Math.min(92, 300 / cycles.length);
  const told = cycles
    .map((c) => `wash ${c.wash}: warp ${c.warp?.text ?? 'not measured'}, weft ${c.weft?.text ?? 'not measured'}`)
    .join('; ');
  return (
    <figure className="cycles">
      <figcaption>In all after each wash, %: warp dark, weft light</figcaption>
      <svg viewBox="0 0 310 104" role="img" aria-label={told}>
        <line x1="0" x2="306" y1={BASE} y2={BASE} />
        {cycles.map((c, i) =>
          (
            [
              ['warp', c.warp],
              ['weft', c.weft],
            ] as const
          ).map(([name, figure], k) => {
            if (!figure) return null;
            const h = Math.max(1, (Math.max(0, figure.value) / top) * HIGH);
            const x = 8 + i * step + k * 34;
            return (
              <g key={`${c.wash}${name}`} className={`cycle-${name}`}>
                <rect x={x} y={BASE - h} width="30" height={h} />
                <text x={x + 15} y={BASE - h - 4} textAnchor="middle">
                  {figure.number}
                </text>
              </g>
            );
          }),
        )}
        {cycles.map((c, i) => (
          <text key={c.wash} x={8 + i * step + 32} y={BASE + 15} textAnchor="middle" className="label">
            wash {c.wash}
          </text>
        ))}
      </svg>
    </figure>
  );
}
