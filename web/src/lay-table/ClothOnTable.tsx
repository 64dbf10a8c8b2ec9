import type { Drawing, Stretch } from '../api/client';
import { ragged } from '../draw/ClothPicture';
import { points } from '../draw/outline';

type At = { scale: number; x0: number; y0: number };

const LINE_NAMES: Record<string, string> = {
  fold: 'fold',
  'near selvage': 'near selvage',
  'far selvage': 'far selvage',
  'lower edge': 'lower edge',
  'meeting line': 'the selvages meet',
  cut: 'cut here',
  crease: '',
};

/** The silhouette of a stretch, selvages and all; the last one goes on to a ragged end. */
function Shape({
  stretch,
  last,
  right,
  at,
  fill,
}: {
  stretch: Stretch;
  last: boolean;
  right: number;
  at: At;
  fill: string;
}) {
  const { scale, x0, y0 } = at;
  const left = x0 + stretch.start * scale;
  const end = last ? right : x0 + stretch.end * scale;
  const top = y0 - (stretch.high + stretch.margins[1]) * scale;
  const bottom = y0 - (stretch.low - stretch.margins[0]) * scale;
  return (
    <path
      d={`M${left},${bottom} L${left},${top} L${end},${top} ${last ? ragged(end, top, bottom) : `L${end},${bottom}`} Z`}
      fill={fill}
    />
  );
}

/** The cloth as it lies: its layers, its edges and folds, and what is kept off. */
export function ClothOnTable({ drawing, at, right }: { drawing: Drawing; at: At; right: number }) {
  const { scale, x0, y0 } = at;
  const { stretches } = drawing;
  const last = stretches.length - 1;
  const y = (mm: number) => y0 - mm * scale;
  return (
    <g className="cloth-on-table">
      {stretches.map((stretch, k) =>
        ['url(#lay-cloth)', 'url(#lay-cloth-weave)'].map((fill) => (
          <Shape key={`${k}${fill}`} stretch={stretch} last={k === last} right={right} at={at} fill={fill} />
        )),
      )}
      {stretches.map((stretch, k) => {
        const left = x0 + stretch.start * scale;
        const end = k === last ? right : x0 + stretch.end * scale;
        const [near, far] = stretch.margins;
        return (
          <g key={k}>
            {stretch.grounds
              .filter((g) => g.layers === 2 || g.under)
              .map((g) => (
                <rect
                  key={g.low}
                  className={g.under ? 'ground under' : 'ground two'}
                  x={left}
                  y={y(g.high)}
                  width={Math.max(0, end - left)}
                  height={(g.high - g.low) * scale}
                />
              ))}
            {far > 0 && (
              <rect
                x={left}
                y={y(stretch.high + far)}
                width={end - left}
                height={Math.max(1, far * scale)}
                className="margin"
              />
            )}
            {near > 0 && (
              <rect
                x={left}
                y={y(stretch.low)}
                width={end - left}
                height={Math.max(1, near * scale)}
                className="margin"
              />
            )}
            {stretch.grounds.length + stretches.length > 2 || stretch.fold !== 'open'
              ? stretch.grounds
                  .filter((g) => (g.high - g.low) * scale > 22)
                  .map((g) => (
                    <text key={g.low} className="layers-told" x={left + 6} y={y(g.high) + 15}>
                      {g.under ? 'lower layer only' : g.layers === 2 ? 'two layers' : 'one layer'}
                    </text>
                  ))
              : null}
          </g>
        );
      })}
      {drawing.kept_off.map((area, i) => (
        <polygon
          key={i}
          className={area.under ? 'kept-off under' : 'kept-off'}
          points={points(
            area.outline.map(([a, b]): [number, number] => [Math.min(a, (right - x0) / scale), b]),
            scale,
            x0,
            y0,
          )}
        >
          <title>
            {area.under ? 'laid around, on the lower layer' : 'laid around: a flaw, a faded fold or a border'}
          </title>
        </polygon>
      ))}
      {stretches.map((stretch, k) =>
        stretch.lines.map((line, i) => {
          const across = line.start[0] === line.end[0];
          const goesOn = k === last && !across && line.end[0] >= stretch.end - 0.01;
          const outwards =
            line.kind === 'near selvage' ? stretch.margins[0] : line.kind === 'far selvage' ? -stretch.margins[1] : 0;
          const shift = outwards * scale;
          const x2 = goesOn ? right : x0 + line.end[0] * scale;
          const kind = line.kind.endsWith('selvage') ? 'selvage' : line.kind.replace(' ', '-');
          return (
            <g key={`${k} ${i}`}>
              <line
                className={kind}
                x1={x0 + line.start[0] * scale}
                x2={x2}
                y1={y(line.start[1]) + shift}
                y2={y(line.end[1]) + shift}
              />
              {kind !== 'crease' && (across || k === last || kind !== 'selvage') && (
                <text
                  className="line-told"
                  x={across ? x0 + line.start[0] * scale + 5 : goesOn ? right + 12 : x2 - 6}
                  y={across ? y(line.start[1]) - 8 : y(line.start[1]) + shift + (goesOn ? 4 : -5)}
                  textAnchor={across || goesOn ? 'start' : 'end'}
                >
                  {LINE_NAMES[line.kind]}
                </text>
              )}
            </g>
          );
        }),
      )}
    </g>
  );
}
