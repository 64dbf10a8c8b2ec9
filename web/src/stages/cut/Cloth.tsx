import type { Cloth, CutRound, CutShape } from '../../api/client';
import { ClothPattern } from '../../draw/ClothPattern';
import { bounds, points } from '../../draw/outline';

export type Box = { x0: number; y0: number; x1: number; y1: number };

/** The whole table of a round, selvages and all. */
export function wholeOf(round: CutRound): Box {
  const low = Math.min(...round.stretches.map((one) => one.low - one.margins[0]!));
  const high = Math.max(...round.stretches.map((one) => one.high + one.margins[1]!));
  return { x0: 0, y0: low, x1: round.length, y1: high };
}

/** A piece with room round it, so that its neighbours are seen. */
export function around(shape: CutShape, room: number): Box {
  const { x0, y0, x1, y1 } = bounds(shape.outline);
  return { x0: x0 - room, y0: y0 - room, x1: x1 + room, y1: y1 + room };
}

const middle = (shape: CutShape) => {
  const { x0, y0, x1, y1 } = bounds(shape.outline);
  return { x: (x0 + x1) / 2, y: (y0 + y1) / 2 };
};

const STATE: Record<CutShape['state'], string> = { waits: 'waits', cut: 'cut', lost: 'went wrong', left: 'given up' };

/** A round of cutting on its cloth: what is cut, what waits, the piece at hand; `box` is what of it is shown. */
export function CutCloth({
  round,
  cloth,
  box,
  width,
  height,
  at,
  large = false,
  route = false,
  onChoose,
  label,
}: {
  round: CutRound;
  cloth: Cloth | undefined;
  box: Box;
  width: number;
  height: number;
  at?: string | undefined;
  large?: boolean;
  route?: boolean;
  onChoose?: (shape: CutShape) => void;
  label: string;
}) {
  const scale = Math.min(width / (box.x1 - box.x0), height / (box.y1 - box.y0));
  if (!(scale > 0)) return null;
  const x0 = (width - (box.x1 - box.x0) * scale) / 2 - box.x0 * scale;
  const y0 = (height + (box.y1 - box.y0) * scale) / 2 + box.y0 * scale;
  const pattern = `cut-cloth-${round.round}-${large ? 'large' : 'small'}`;
  const px = (x: number) => x0 + x * scale;
  const py = (y: number) => y0 - y * scale;
  const here = round.shapes.find((shape) => shape.key === at);
  const ticks = Math.floor(round.length / round.ruler) + 1;
  return (
    <svg
      width={width}
      height={height}
      className={large ? 'cut-cloth large' : 'cut-cloth'}
      role="img"
      aria-label={label}
    >
      <defs>
        {/* the bars are counted from the selvage, the lay from where the usable width begins */}
        {cloth && (
          <ClothPattern
            id={pattern}
            cloth={cloth}
            scale={scale}
            x0={x0}
            y0={y0 + (round.stretches[0]?.margins[0] ?? 0) * scale}
          />
        )}
        <clipPath id={`${pattern}-box`}>
          <rect width={width} height={height} />
        </clipPath>
      </defs>
      <g clipPath={`url(#${pattern}-box)`}>
        {round.stretches.map((one) => (
          <g key={one.section}>
            <rect
              x={px(one.start)}
              y={py(one.high + one.margins[1]!)}
              width={(one.end - one.start) * scale}
              height={(one.high + one.margins[1]! - one.low + one.margins[0]!) * scale}
              fill={cloth ? `url(#${pattern})` : 'var(--calico)'}
              className="ground"
            />
            {one.grounds
              .filter((ground) => ground.layers === 2)
              .map((ground) => (
                <rect
                  key={ground.low}
                  className="two"
                  x={px(one.start)}
                  y={py(ground.high)}
                  width={(one.end - one.start) * scale}
                  height={(ground.high - ground.low) * scale}
                />
              ))}
            {one.lines.map((line, k) => (
              <line
                key={k}
                x1={px(line.start[0]!)}
                y1={py(line.start[1]!)}
                x2={px(line.end[0]!)}
                y2={py(line.end[1]!)}
                className={`edge ${line.kind.replace(' ', '-')}`}
              />
            ))}
          </g>
        ))}
        {round.kept_off.map((area, k) => (
          <polygon key={k} className="kept-off" points={points(area.outline, scale, x0, y0)} />
        ))}
        {round.shapes
          .filter((shape) => shape.state !== 'left')
          .map((shape) => {
            const { x, y } = middle(shape);
            const chosen = shape.key === at;
            return (
              <g
                key={shape.key}
                className={`cut-shape ${shape.state}${chosen ? ' here' : ''}`}
                {...(onChoose && { onClick: () => onChoose(shape) })}
              >
                <polygon points={points(shape.outline, scale, x0, y0)}>
                  <title>{`${shape.number ? `${shape.number}. ` : ''}${shape.name}, ${STATE[shape.state]}`}</title>
                </polygon>
                {large &&
                  shape.marks.map((mark, k) =>
                    mark.line.length === 1 ? (
                      <circle key={k} cx={px(mark.line[0]![0]!)} cy={py(mark.line[0]![1]!)} r={3.5} className="mark" />
                    ) : (
                      <polyline key={k} points={points(mark.line, scale, x0, y0)} className="mark" />
                    ),
                  )}
                {large && !chosen && (
                  <text x={px(x)} y={py(y)} className="neighbour">
                    {shape.name}
                  </text>
                )}
                {!large && (
                  <text x={px(x)} y={py(y) + 5} className="number">
                    {shape.state === 'cut' ? '✓' : shape.state === 'lost' ? '✗' : shape.number || ''}
                  </text>
                )}
              </g>
            );
          })}
        {route && <polyline className="route" points={points(round.route, scale, x0, y0)} />}
        {large && here && (
          <g className="arrow">
            <line x1={px(here.tail[0]!)} y1={py(here.tail[1]!)} x2={px(here.head[0]!)} y2={py(here.head[1]!)} />
            <circle cx={px(here.tail[0]!)} cy={py(here.tail[1]!)} r={4} />
            <ArrowHead tail={[px(here.tail[0]!), py(here.tail[1]!)]} head={[px(here.head[0]!), py(here.head[1]!)]} />
          </g>
        )}
        <g className="cut-ruler" aria-hidden="true">
          {Array.from({ length: ticks }, (_, k) => (
            <line
              key={k}
              x1={px(k * round.ruler)}
              x2={px(k * round.ruler)}
              y1={py(wholeOf(round).y0)}
              y2={py(wholeOf(round).y0) - (k % 5 ? 5 : 9)}
            />
          ))}
        </g>
      </g>
    </svg>
  );
}

function ArrowHead({ tail, head }: { tail: [number, number]; head: [number, number] }) {
  const long = Math.hypot(head[0] - tail[0], head[1] - tail[1]) || 1;
  const [ux, uy] = [(head[0] - tail[0]) / long, (head[1] - tail[1]) / long];
  const back = [head[0] - 14 * ux, head[1] - 14 * uy] as const;
  return (
    <polygon
      points={`${head[0]},${head[1]} ${back[0] - 6 * uy},${back[1] + 6 * ux} ${back[0] + 6 * uy},${back[1] - 6 * ux}`}
    />
  );
}
