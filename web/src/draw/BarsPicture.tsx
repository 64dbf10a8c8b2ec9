import type { BarsFound, Cloth } from '../api/client';
import { useTape } from '../api/hooks';
import { ClothPattern } from './ClothPattern';
import { Ruler } from './Ruler';
import { useSize } from './useSize';

const PAD = { left: 66, top: 44, right: 90, bottom: 40 };
/** So many repeats are shown of the direction that repeats more slowly. */
const REPEATS = 2;

/** Where axes and repeats fall within a length, millimetres. */
function places(found: BarsFound, length: number): { axes: number[]; repeats: number[] } {
  const repeat = found.repeat?.mm;
  if (!repeat) return { axes: [], repeats: [] };
  const times = (first: number) =>
    Array.from({ length: Math.max(0, Math.floor((length - first) / repeat) + 1) }, (_, n) => first + n * repeat);
  return { axes: found.axes.flatMap(times), repeats: times(0) };
}

/** The bars enlarged: a few repeats, with the lines in which they mirror. */
export function BarsPicture({ cloth }: { cloth: Cloth }) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const tape = useTape();
  const slowest = Math.max(cloth.along.repeat?.mm ?? 0, cloth.across.repeat?.mm ?? 0);
  const high = slowest * REPEATS;
  const scale = Math.max(0.01, (height - PAD.top - PAD.bottom) / high);
  const wide = Math.max(1, (width - PAD.left - PAD.right) / scale);
  const x0 = PAD.left;
  const y1 = PAD.top + high * scale;
  const along = places(cloth.along, wide);
  const across = places(cloth.across, high);
  return (
    <div className="picture" ref={ref}>
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label="The bars, enlarged, with their mirror lines">
          <defs>
            <ClothPattern id="bars-cloth" cloth={cloth} scale={scale} y0={y1} x0={x0} />
          </defs>
          <rect x={x0} y={PAD.top} width={wide * scale} height={high * scale} fill="url(#bars-cloth)" />
          <Ruler scale={scale} length={wide} unit={tape.mm} imperial={tape.imperial} x={x0} y={PAD.top - 6} />
          <Ruler scale={scale} length={high} unit={tape.mm} imperial={tape.imperial} vertical x={x0 - 6} y={y1} />
          <text x={x0 - 6} y={PAD.top - 26} className="label" textAnchor="end">
            {tape.unit}
          </text>
          {across.axes.map((y) => (
            <g key={`y${y}`}>
              <line className="axis" x1={x0} x2={x0 + wide * scale + 8} y1={y1 - y * scale} y2={y1 - y * scale} />
              <text x={x0 + wide * scale + 12} y={y1 - y * scale + 5} className="label">
                mirrors
              </text>
            </g>
          ))}
          {along.axes.map((x) => (
            <g key={`x${x}`}>
              <line className="axis" x1={x0 + x * scale} x2={x0 + x * scale} y1={PAD.top} y2={y1 + 8} />
              <text x={x0 + x * scale} y={y1 + 24} textAnchor="middle" className="label">
                mirrors
              </text>
            </g>
          ))}
          {across.repeats.slice(1).map((y) => (
            <text key={y} x={x0 + wide * scale + 12} y={y1 - y * scale + 5} className="label-strong">
              begins again
            </text>
          ))}
        </svg>
      )}
    </div>
  );
}
