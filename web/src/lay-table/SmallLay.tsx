import type { Cloth, SmallLay as Small } from '../api/client';

/** Pixels per millimetre at which lays as long and wide as these fit into a box. */
export function fitting(long: number, wide: number, width: number, height: number): number {
  return Math.min(width / Math.max(long, 1), height / Math.max(wide, 1));
}

/** A lay small, on its own colour of cloth. */
export function SmallLay({ lay, cloth, scale }: { lay: Small; cloth: Cloth; scale: number }) {
  const w = lay.length.mm * scale;
  const h = lay.width * scale;
  return (
    <svg
      width={w + 2}
      height={h + 2}
      className="small-lay"
      role="img"
      aria-label={`the lay, ${lay.length.text} long, ${lay.fold}`}
    >
      <rect x={1} y={1} width={w} height={h} fill={cloth.ground} />
      {lay.outlines.map((outline, i) => (
        <polygon
          key={i}
          points={outline
            .map(([x, y]) => `${(1 + x * scale).toFixed(1)},${(1 + (lay.width - y) * scale).toFixed(1)}`)
            .join(' ')}
        />
      ))}
    </svg>
  );
}
