import { type KeyboardEvent, useMemo } from 'react';
import type { Cloth, Drawing, Lay, Shape } from '../api/client';
import { useTape } from '../api/hooks';
import { ClothPattern } from '../draw/ClothPattern';
import { GrainArrow } from '../draw/GrainArrow';
import { Marks } from '../draw/PieceShape';
import { points } from '../draw/outline';
import { Ruler } from '../draw/Ruler';
import { useSize } from '../draw/useSize';
import { ragged } from '../draw/ClothPicture';

type Props = {
  lay: Lay;
  drawing: Drawing;
  cloth: Cloth;
  chosen: string | undefined;
  onChoose: (key: string | undefined) => void;
};

const PAD = { left: 34, top: 40, right: 34, bottom: 52 };

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

function Distances({
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
  const near = Math.abs(shape.head[0] - shape.tail[0]) * scale < 90 && shape.edge !== 'cut end';
  return (
    <g className="distances">
      {ends.map(({ from, told }, i) => {
        const to: [number, number] =
          shape.edge === 'cut end'
            ? [0, from[1]]
            : shape.edge === 'fold'
              ? [from[0], drawing.fold_at ?? 0]
              : shape.edge === 'near selvage'
                ? [from[0], drawing.low - lay.margins[0]]
                : [from[0], drawing.high + lay.margins[1]];
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

/** The lay on its cloth, along the screen: ruler on the selvage, pieces as tracing paper. */
export function LayPicture({ lay, drawing, cloth, chosen, onChoose }: Props) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const tape = useTape();
  const folded = drawing.fold_at !== null;
  const low = drawing.low - (folded ? 0 : lay.margins[0]);
  const high = drawing.high + lay.margins[1];
  const shown = drawing.length * 1.06;
  const scale = Math.max(
    0.01,
    Math.min((width - PAD.left - PAD.right) / shown, Math.max(120, height - PAD.top - PAD.bottom) / (high - low)),
  );
  const x0 = PAD.left;
  const y0 = PAD.top + high * scale;
  const at = useMemo(
    () =>
      (x: number, y: number): [number, number] => [x0 + x * scale, y0 - y * scale],
    [x0, y0, scale],
  );
  const top = PAD.top;
  const bottom = y0 - low * scale;
  const right = x0 + shown * scale;
  const selected = drawing.shapes.find((s) => s.key === chosen);
  const end = x0 + drawing.length * scale;
  const bound = x0 + lay.bound.mm * scale;

  function key(event: KeyboardEvent, index: number) {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      onChoose(drawing.shapes[index]?.key);
    } else if (event.key === 'Escape') {
      onChoose(undefined);
    } else if (step) {
      event.preventDefault();
      const all = event.currentTarget.parentElement?.querySelectorAll<SVGGElement>('.laid');
      const next = (index + step + drawing.shapes.length) % drawing.shapes.length;
      all?.[next]?.focus();
      onChoose(drawing.shapes[next]?.key);
    }
  }

  return (
    <div className="picture lay-picture" ref={ref}>
      {width > 0 && (
        // oxlint-disable-next-line jsx-a11y/click-events-have-key-events, jsx-a11y/no-static-element-interactions -- by keys it is left with Escape
        <svg
          width={width}
          height={Math.max(bottom + PAD.bottom, 10)}
          data-scale={scale}
          onClick={(e) => {
            if (e.target === e.currentTarget) onChoose(undefined);
          }}
        >
          <defs>
            <ClothPattern id="lay-cloth" cloth={cloth} scale={scale} x0={x0} y0={y0 + lay.margins[0] * scale} />
          </defs>
          {['url(#lay-cloth)', 'url(#lay-cloth-weave)'].map((fill) => (
            <path
              key={fill}
              d={`M${x0},${bottom} L${x0},${top} L${right},${top} ${ragged(right, top, bottom)} Z`}
              fill={fill}
            />
          ))}
          <rect x={x0} y={top} width={right - x0} height={Math.max(1, lay.margins[1] * scale)} className="margin" />
          {!folded && (
            <rect
              x={x0}
              y={bottom - lay.margins[0] * scale}
              width={right - x0}
              height={Math.max(1, lay.margins[0] * scale)}
              className="margin"
            />
          )}
          <line x1={x0} x2={right} y1={top} y2={top} className="selvage" />
          <line x1={x0} x2={right} y1={bottom} y2={bottom} className={folded ? 'fold' : 'selvage'} />
          <Ruler scale={scale} length={shown} unit={tape.mm} imperial={tape.imperial} x={x0} y={top - 5} />
          <text x={x0 - 8} y={top - 17} className="label" textAnchor="end">
            {tape.unit}
          </text>
          {drawing.kept_off.map((area, i) => (
            <rect
              key={i}
              className="kept-off"
              x={x0 + area.x0 * scale}
              y={y0 - area.y1 * scale}
              width={(Math.min(area.x1, shown) - area.x0) * scale}
              height={(area.y1 - area.y0) * scale}
            >
              <title>laid around: a flaw or a faded fold</title>
            </rect>
          ))}
          {drawing.shapes.map((shape, i) => {
            const [tx, ty] = at(shape.tail[0], shape.tail[1]);
            const [hx, hy] = at(shape.head[0], shape.head[1]);
            const name = fitting(shape, scale);
            const crossed = name?.crossed ?? false;
            const narrow = crossed || reach(shape).across * scale < 52;
            const along = (Math.atan2(hy - ty, hx - tx) * 180) / Math.PI + (crossed ? 90 : 0);
            // a name is read from below or from the right, never upside down
            const folded = ((along % 180) + 180) % 180;
            const upright = folded > 85 ? folded - 180 : folded;
            return (
              <g
                key={shape.key}
                className={`laid ${shape.key === chosen ? 'chosen' : ''}`}
                tabIndex={0}
                role="button"
                aria-pressed={shape.key === chosen}
                aria-label={`${shape.piece}, ${shape.copy_number}; ${shape.from_end} from the cut end`}
                onClick={(e) => {
                  e.stopPropagation();
                  onChoose(shape.key);
                }}
                onKeyDown={(e) => key(e, i)}
              >
                <title>{shape.piece}</title>
                <polygon points={points(shape.outline, scale, x0, y0)} />
                <Marks
                  drawn={shape.marks}
                  place={(line) => line.map(([x, y]): [number, number] => [x0 + x * scale, y0 - y * scale])}
                />
                <GrainArrow tail={[tx, ty]} head={[hx, hy]} oneWay={cloth.one_way} />
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
              </g>
            );
          })}
          {selected && <Distances shape={selected} drawing={drawing} lay={lay} at={at} scale={scale} />}
          <line className="lay-end" x1={end} x2={end} y1={top - 16} y2={bottom + 8} />
          <text x={end} y={bottom + 22} textAnchor="end" className="lay-end-text">
            lay {lay.length.text}
          </text>
          {bound < end - 150 && (
            <>
              <line className="lay-bound" x1={bound} x2={bound} y1={bottom + 2} y2={bottom + 12} />
              <text x={bound} y={bottom + 24} textAnchor="end" className="label">
                cannot be shorter than {lay.bound.text}
              </text>
            </>
          )}
          <text x={x0} y={bottom + 44} className="label">
            {folded ? `fold along the lower edge, selvages together at the top` : `near selvage below`}
            {cloth.one_way ? '; all tops to the right' : ''}
          </text>
        </svg>
      )}
    </div>
  );
}
