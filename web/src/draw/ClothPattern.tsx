import type { Bar } from '../api/client';

/** What of a cloth is seen from afar. */
export type Looks = { ground: string; bars_along: Bar[]; bars_across: Bar[] };

const total = (bars: Bar[]) => bars.reduce((sum, bar) => sum + bar.width, 0);

/** Bars as rectangles; positions are running sums. */
function placed(bars: Bar[]): { at: number; bar: Bar }[] {
  let at = 0;
  return bars.map((bar) => {
    const here = { at, bar };
    at += bar.width;
    return here;
  });
}

/** A fill drawn from the cloth's own ground and bars, one repeat as a tile; `scale` is pixels per millimetre, and the
    bars begin at the cut end `x0` and the near selvage `y0`. `left`: what is left of the bars, along and across, where
    the cloth has shrunk since they were measured. */
export function ClothPattern({
  id,
  cloth,
  scale,
  x0 = 0,
  y0 = 0,
  left = [1, 1],
}: {
  id: string;
  cloth: Looks;
  scale: number;
  x0?: number;
  y0?: number;
  left?: number[];
}) {
  const along = total(cloth.bars_along);
  const across = total(cloth.bars_across);
  const w = along || 40;
  const h = across || 40;
  const both = along > 0 && across > 0;
  return (
    <>
      <pattern
        id={id}
        patternUnits="userSpaceOnUse"
        width={w * scale}
        height={h * scale}
        patternTransform={`translate(${x0} ${y0}) scale(${left[0]} ${left[1]})`}
      >
        <rect width={w * scale} height={h * scale} fill={cloth.ground} />
        {placed(cloth.bars_across).map(({ at, bar }) => (
          <rect
            key={`y${at}`}
            x={0}
            width={w * scale}
            y={(h - at - bar.width) * scale}
            height={bar.width * scale}
            fill={bar.colour}
          />
        ))}
        {placed(cloth.bars_along).map(({ at, bar }) => (
          <rect
            key={`x${at}`}
            y={0}
            height={h * scale}
            x={at * scale}
            width={bar.width * scale}
            fill={bar.colour}
            fillOpacity={both ? 0.5 : 1}
          />
        ))}
      </pattern>
      <pattern id={`${id}-weave`} patternUnits="userSpaceOnUse" width="4" height="4">
        <path d="M0,0.5 H2 M2,2.5 H4" stroke="#fff" strokeOpacity="0.22" />
        <path d="M0.5,2 V4 M2.5,0 V2" stroke="#000" strokeOpacity="0.07" />
      </pattern>
    </>
  );
}
