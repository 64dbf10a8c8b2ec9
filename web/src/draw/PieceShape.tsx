import type { Piece } from '../api/client';
import { GrainArrow } from './GrainArrow';
import { points } from './outline';

type Shaped = Pick<Piece, 'outline' | 'cut' | 'seam_line' | 'arrow' | 'fold' | 'one_way' | 'drawn'> & {
  enlarged?: Piece['enlarged'] | undefined;
};

/** Notches, points, darts and lines, each at its place on the picture. */
export function Marks({
  drawn,
  place,
  named = true,
}: {
  drawn: Piece['drawn'];
  /** whether there is room for what points are called */
  named?: boolean;
  place: (line: Piece['outline']) => [number, number][];
}) {
  return drawn.map((mark, i) => {
    const at = place(mark.line);
    const [x, y] = at[0] ?? [0, 0];
    if (mark.kind === 'point')
      return (
        <g key={i} className="mark">
          <path d={`M${x - 4},${y} h8 M${x},${y - 4} v8`} />
          {named && mark.name && (
            <text x={x + 6} y={y - 4}>
              {mark.name}
            </text>
          )}
        </g>
      );
    return <polyline key={i} className={`mark mark-${mark.kind}`} points={at.map((p) => p.join(',')).join(' ')} />;
  });
}

/** One piece standing upright, as on the pattern sheet: cut line, seam line, grain, fold. */
export function PieceShape({
  piece,
  scale,
  x,
  y,
  name,
  detail,
}: {
  piece: Shaped;
  scale: number;
  x: number;
  y: number;
  name?: string;
  detail?: string;
}) {
  // on the sheet the grain points up: along → up, across → left
  const turn = (o: Piece['outline']) => o.map(([a = 0, b = 0]): [number, number] => [-b, a]);
  const cut = turn(piece.cut);
  const [tail, head] = turn(piece.arrow).map(([a, b]): [number, number] => [x + a * scale, y - b * scale]);
  const top = y - Math.max(...cut.map((p) => p[1]), ...turn(piece.enlarged ?? []).map((p) => p[1])) * scale;
  const [from, to] = piece.fold;
  const middle = tail && head ? [(tail[0] + head[0]) / 2, (tail[1] + head[1]) / 2] : undefined;
  return (
    <g className="piece">
      <polygon points={points(cut, scale, x, y)} className="piece-cut" />
      {piece.enlarged && piece.enlarged.length > 0 && (
        <polygon points={points(turn(piece.enlarged), scale, x, y)} className="piece-enlarged" />
      )}
      {piece.cut.length !== piece.outline.length || piece.cut[0]?.[0] !== piece.outline[0]?.[0] ? (
        <polygon points={points(turn(piece.outline), scale, x, y)} className="piece-seam" />
      ) : null}
      {piece.seam_line.length > 0 && (
        <polygon points={points(turn(piece.seam_line), scale, x, y)} className="piece-seam" />
      )}
      <Marks
        drawn={piece.drawn}
        place={(line) => turn(line).map(([a, b]): [number, number] => [x + a * scale, y - b * scale])}
      />
      {from !== undefined && to !== undefined && (
        <>
          <line className="piece-fold" x1={x} x2={x} y1={y - from * scale} y2={y - to * scale} />
          <text
            className="piece-detail"
            textAnchor="middle"
            transform={`translate(${x + 12} ${y - ((from + to) / 2) * scale}) rotate(90)`}
          >
            fold
          </text>
        </>
      )}
      {tail && head && <GrainArrow tail={tail} head={head} oneWay={piece.one_way} />}
      {name && middle && (
        <text className="piece-name" x={middle[0]} y={top - 20} textAnchor="middle">
          {name}
        </text>
      )}
      {detail && middle && (
        <text className="piece-detail" x={middle[0]} y={top - 5} textAnchor="middle">
          {detail}
        </text>
      )}
    </g>
  );
}
