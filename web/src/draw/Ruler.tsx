type Props = {
  /** pixels per millimetre */
  scale: number;
  /** millimetres the ruler covers */
  length: number;
  /** millimetres per unit of the tape */
  unit: number;
  imperial: boolean;
  vertical?: boolean;
  /** its figures under it, as along a lower edge */
  below?: boolean;
  /** pixels where it begins */
  x: number;
  y: number;
};

/** Units between two ticks and between two figures, so that neither crowd. */
export function spacing(scale: number, unit: number, imperial: boolean): { tick: number; figure: number } {
  const steps = imperial ? [1, 2, 3, 6, 12, 24, 36] : [1, 2, 5, 10, 20, 50, 100];
  const tick = steps.find((s) => s * unit * scale >= 4) ?? 100;
  const figure = steps.find((s) => s * unit * scale >= 34 && s % tick === 0) ?? 100;
  return { tick, figure };
}

/** A tape laid along an edge, in the person's unit. */
export function Ruler({ scale, length, unit, imperial, vertical = false, below = false, x, y }: Props) {
  const { tick, figure } = spacing(scale, unit, imperial);
  const marks = [];
  for (let n = 0; n * unit <= length + 0.01; n += tick) {
    const at = n * unit * scale;
    const big = n % figure === 0;
    const size = big ? 9 : n % (figure / 2) === 0 ? 6 : 4;
    marks.push(
      <g key={n} transform={vertical ? `translate(${x} ${y - at})` : `translate(${x + at} ${y})`}>
        <line x2={vertical ? -size : 0} y2={vertical ? 0 : below ? size : -size} />
        {big && n > 0 && (
          <text x={vertical ? -12 : 0} y={vertical ? 4 : below ? 21 : -12} textAnchor={vertical ? 'end' : 'middle'}>
            {n}
          </text>
        )}
      </g>,
    );
  }
  return (
    <g className="ruler" aria-hidden="true">
      {marks}
    </g>
  );
}
