import type { Project, Shrink } from '../../api/client';

const SIDE = 260;
const LEFT = 46;
const TOP = 40;

/** How many times its true amount a change is drawn, so that a few per cent can be seen. */
const LARGER = 2;

/** The swatch before (dashed) and after (woven), laid over each other with its true shape, changes drawn twice. */
export function SwatchPicture({ project, shrink }: { project: Project; shrink: Shrink }) {
  const before = shrink.before_corners;
  const after = shrink.cycles.at(-1)?.corners ?? [];
  const shown = before.length
    ? before
    : [
        [0, 0],
        [250, 0],
        [250, 250],
        [0, 250],
      ];
  const w = Math.max(...shown.map((p) => p[0]!));
  const h = Math.max(...shown.map((p) => p[1]!));
  const scale = SIDE / Math.max(w, h);
  const place = (p: readonly number[]) => `${LEFT + p[0]! * scale},${TOP + (h - p[1]!) * scale}`;
  const drawn = after.map((p, i) => {
    const from = shown[i] ?? p;
    return [from[0]! + (p[0]! - from[0]!) * LARGER, from[1]! + (p[1]! - from[1]!) * LARGER];
  });
  const main = shrink.role === 'main';
  return (
    <svg viewBox="0 0 350 350" className="swatch" role="img" aria-label="The swatch before and after washing">
      <defs>
        <pattern id="swatch-weave" patternUnits="userSpaceOnUse" width="8" height="8">
          <rect width="8" height="8" fill={main ? project.cloth.ground : '#D8D4CA'} />
          <path d="M0,2 H4 M4,6 H8" stroke="#fff" strokeOpacity="0.5" strokeWidth="1.6" />
          <path d="M2,4 V8 M6,0 V4" stroke="#000" strokeOpacity="0.12" strokeWidth="1.6" />
        </pattern>
      </defs>
      {drawn.length > 0 && (
        <polygon points={drawn.map(place).join(' ')} fill="url(#swatch-weave)" stroke="#2A3B6B" strokeWidth="2" />
      )}
      <polygon
        points={shown.map(place).join(' ')}
        fill={drawn.length ? 'none' : 'url(#swatch-weave)'}
        stroke="#23272E"
        strokeWidth="1.4"
        strokeDasharray="6 4"
      />
      {shown.map((p, i) => {
        const [x, y] = place(p).split(',').map(Number) as [number, number];
        return (
          <text
            key={i}
            x={x + (i === 0 || i === 3 ? -9 : 9)}
            y={y + (i < 2 ? 14 : -4)}
            textAnchor="middle"
            className="label-strong"
          >
            {'ABCD'[i]}
          </text>
        );
      })}
      <text x={LEFT + (w * scale) / 2} y="18" textAnchor="middle" className="label">
        {drawn.length > 0 ? 'dashed: before; the change is drawn twice' : 'dashed: before washing'}
      </text>
      <text x={LEFT + (w * scale) / 2} y={TOP + h * scale + 24} textAnchor="middle" className="label-strong">
        warp, along the selvage →
      </text>
      <text
        transform={`translate(22 ${TOP + (h * scale) / 2}) rotate(-90)`}
        textAnchor="middle"
        className="label-strong"
      >
        weft, across →
      </text>
    </svg>
  );
}
