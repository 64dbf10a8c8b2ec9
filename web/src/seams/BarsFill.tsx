import type { LaidBars } from '../api/client';

/** The bars of the cloth as a fill, in millimetres of the cloth: one repeat each way as a tile. */
export function BarsFill({ id, bars, shift = [0, 0] }: { id: string; bars: LaidBars; shift?: [number, number] }) {
  const w = bars.x_repeat ?? 40;
  const h = bars.y_repeat ?? 40;
  const [x0, y0] = [(bars.x[0]?.begins ?? 0) + shift[0], (bars.y[0]?.begins ?? 0) + shift[1]];
  const both = bars.x.length > 0 && bars.y.length > 0;
  return (
    <pattern id={id} patternUnits="userSpaceOnUse" x={x0} y={y0} width={w} height={h}>
      <rect width={w} height={h} fill={bars.ground} />
      {bars.y.map((b) => (
        <rect key={`y${b.begins}`} x={0} width={w} y={b.begins + shift[1] - y0} height={b.width} fill={b.colour} />
      ))}
      {bars.x.map((b) => (
        <rect
          key={`x${b.begins}`}
          y={0}
          height={h}
          x={b.begins + shift[0] - x0}
          width={b.width}
          fill={b.colour}
          fillOpacity={both ? 0.5 : 1}
        />
      ))}
    </pattern>
  );
}
