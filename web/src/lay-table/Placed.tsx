import { memo } from 'react';
import type { Drawing, Lay, Shape } from '../api/client';
import { GrainArrow } from '../draw/GrainArrow';
import { Marks } from '../draw/PieceShape';
import { points } from '../draw/outline';

const SIZES = [15, 13, 11, 10];
type Name = { size: number; text: string; crossed: boolean; beside: boolean };

/** How far a shape reaches along its grain, and square to it, in millimetres. */
function reach({ outline, tail, head }: Shape): { along: number; across: number } {
  const long = Math.hypot(head[0] - tail[0], head[1] - tail[1]) || 1;
  const [ux, uy] = [(head[0] - tail[0]) / long, (head[1] - tail[1]) / long];
  const span = (values: number[]) => Math.max(...values) - Math.min(...values);
  return {
    along: span(outline.map(([x, y]) => x * ux + y * uy)),
    across: span(outline.map(([x, y]) => x * uy - y * ux)),
  };
}

/** A name along its arrow where there is room, else crossed over it, as on a collar stand; else none. */
function fitting(shape: Shape, scale: number): Name | undefined {
  const text = shape.piece;
  const arrow = Math.hypot(shape.head[0] - shape.tail[0], shape.head[1] - shape.tail[1]) * scale * 1.4;
  const { along, across } = reach(shape);
  for (const crossed of [false, true]) {
    const [wide, high] = crossed ? [across * scale - 4, along * scale] : [arrow, across * scale];
    for (const size of SIZES)
      if (text.length * size * 0.52 <= wide && size * 1.1 <= high)
        return { size, text, crossed, beside: crossed && text.length * size * 0.52 <= wide / 2 - 8 };
  }
  return undefined;
}

type Props = {
  shape: Shape;
  scale: number;
  x0: number;
  y0: number;
  chosen: boolean;
  lifted: boolean;
  oneWay: boolean;
};

/** One piece as it lies on the cloth. What is done with it is heard by the picture. */
export const Placed = memo(function Placed({ shape, scale, x0, y0, chosen, lifted, oneWay }: Props) {
  const at = ([x, y]: [number, number]): [number, number] => [x0 + x * scale, y0 - y * scale];
  const [tx, ty] = at(shape.tail);
  const [hx, hy] = at(shape.head);
  const name = fitting(shape, scale);
  const crossed = name?.crossed ?? false;
  const narrow = crossed || reach(shape).across * scale < 52;
  const along = (Math.atan2(hy - ty, hx - tx) * 180) / Math.PI + (crossed ? 90 : 0);
  // a name is read from below or from the right, never upside down
  const folded = ((along % 180) + 180) % 180;
  const upright = folded > 85 ? folded - 180 : folded;
  const told = [
    `${shape.piece}, ${shape.copy_number}; ${shape.from_end} from the ${shape.from_what}`,
    ...(shape.locked ? ['locked'] : []),
    ...(shape.broken.length ? ['breaks a rule'] : []),
  ].join('; ');
  return (
    <g
      className={[
        'laid',
        chosen && 'chosen',
        lifted && 'lifted',
        shape.locked && 'locked',
        shape.broken.length && 'broken',
      ]
        .filter(Boolean)
        .join(' ')}
      data-pinned={shape.pinned}
      tabIndex={0}
      role="button"
      aria-pressed={chosen}
      aria-label={told}
    >
      <title>{shape.piece}</title>
      <polygon points={points(shape.outline, scale, x0, y0)} />
      {shape.layers === 2 && <polygon className="second-layer" points={points(shape.outline, scale, x0 + 3, y0 + 3)} />}
      <Marks drawn={shape.marks} place={(line) => line.map(at)} named={scale > 0.9} />
      <GrainArrow tail={[tx, ty]} head={[hx, hy]} oneWay={oneWay} />
      {name && (
        <text
          transform={`translate(${(tx + hx) / 2} ${(ty + hy) / 2}) rotate(${upright})`}
          x={name.beside ? 9 : 0}
          y={narrow ? 5 : -7}
          className={narrow && !name.beside ? 'on-arrow' : undefined}
          fontSize={name.size}
          textAnchor={name.beside ? 'start' : 'middle'}
        >
          {name.text}
        </text>
      )}
      {shape.hem && (
        <g className="hem-lost" aria-hidden="true">
          <polyline points={shape.hem.edge.map(at).join(' ')} />
          <circle cx={at(shape.hem.at)[0]} cy={at(shape.hem.at)[1]} r={4} />
        </g>
      )}
      {shape.locked && <Pin x={tx} y={ty} />}
      {shape.broken.length > 0 && <Warn x={hx} y={hy} />}
    </g>
  );
});

/** A pin through the cloth: what is locked. */
function Pin({ x, y }: { x: number; y: number }) {
  return (
    <g className="pin" transform={`translate(${x} ${y})`} aria-hidden="true">
      <line x1={-9} y1={9} x2={4} y2={-4} />
      <circle cx={6} cy={-6} r={4.5} />
    </g>
  );
}

/** A piece that breaks a rule. */
function Warn({ x, y }: { x: number; y: number }) {
  return (
    <g className="warn" transform={`translate(${x} ${y})`} aria-hidden="true">
      <rect x={-9} y={-9} width={18} height={18} rx={3} />
      <text y={5} textAnchor="middle">
        !
      </text>
    </g>
  );
}

/** Where the edge lies to which a shape is measured. */
function edgeOf(shape: Shape, drawing: Drawing, lay: Lay): number {
  const stretch = drawing.stretches.find((s) => s.section === shape.section) ?? drawing.stretches[0]!;
  if (shape.edge === 'near selvage') return stretch.low - lay.margins[0];
  if (shape.edge === 'far selvage') {
    const line = stretch.lines.find((l) => l.kind === 'far selvage');
    return (line?.start[1] ?? stretch.high) + lay.margins[1];
  }
  const folds = stretch.lines.filter((l) => l.kind === 'fold').map((l) => l.start[1]);
  return folds.reduce(
    (best, y) => (Math.abs(y - shape.tail[1]) < Math.abs(best - shape.tail[1]) ? y : best),
    folds[0] ?? 0,
  );
}

/** The two distances from the arrow's ends to the edge they are measured to. */
export function Distances({
  shape,
  drawing,
  lay,
  at,
  scale,
}: {
  shape: Shape;
  drawing: Drawing;
  lay: Lay;
  at: (x: number, y: number) => [number, number];
  scale: number;
}) {
  const ends = [
    { from: shape.tail, told: shape.tail_distance.text },
    { from: shape.head, told: shape.head_distance.text },
  ];
  const near = Math.abs(shape.head[0] - shape.tail[0]) * scale < 90 && shape.turn % 180 !== 90;
  return (
    <g className="distances">
      {ends.map(({ from, told }, i) => {
        const to: [number, number] = shape.turn % 180 === 90 ? [0, from[1]] : [from[0], edgeOf(shape, drawing, lay)];
        const [ax, ay] = at(from[0], from[1]);
        const [bx, by] = at(to[0], to[1]);
        const share = near ? (i === 0 ? 0.3 : 0.7) : 0.5;
        const half = told.length * 4 + 8;
        return (
          <g key={i}>
            <line x1={ax} y1={ay} x2={bx} y2={by} />
            <g transform={`translate(${ax + (bx - ax) * share} ${ay + (by - ay) * share})`}>
              <rect x={-half} y={-12} width={half * 2} height={24} rx={4} />
              <text textAnchor="middle" y={5}>
                {told}
              </text>
            </g>
          </g>
        );
      })}
    </g>
  );
}
