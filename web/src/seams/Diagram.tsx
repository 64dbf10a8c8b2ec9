import { type KeyboardEvent, type MouseEvent, type PointerEvent, useMemo, useRef } from 'react';
import type { Match, Seam, SeamPiece, SewnEdge } from '../api/client';
import { bounds } from '../draw/outline';
import { called, CLASSES, SIGNS } from './Verdict';

type XY = [number, number];
type Spot = { piece: SeamPiece; x: number; y: number; scale: number };
export type Touched = { piece: SeamPiece; edge: SewnEdge };

const GAP = 46;
const HEAD = 30;

/** Pieces side by side as they are sewn, all at one scale, in as many rows as fit best. */
function arrange(pieces: SeamPiece[], width: number, height: number): { spots: Spot[]; high: number } {
  const sizes = pieces.map((p) => {
    const b = bounds(p.outline);
    const left = p.mirror ? Math.max(b.y1, -b.y0) : b.y1;
    const right = p.mirror ? left : -b.y0;
    return { left, right, top: b.x1, low: b.x0 };
  });
  for (let scale = 0.7; ; scale *= 0.94) {
    let [x, y, shelf] = [GAP, HEAD, 0];
    const spots: Spot[] = [];
    pieces.forEach((piece, i) => {
      const s = sizes[i]!;
      const wide = Math.max((s.left + s.right) * scale, 70);
      if (x + wide + GAP > width && x > GAP) {
        x = GAP;
        y += shelf + GAP + HEAD;
        shelf = 0;
      }
      spots.push({
        piece,
        x: x + (wide - (s.left + s.right) * scale) / 2 + s.left * scale,
        y: y + s.top * scale,
        scale,
      });
      x += wide + GAP;
      shelf = Math.max(shelf, (s.top - s.low) * scale);
    });
    const high = y + shelf + GAP;
    if (high <= height || scale < 0.08) return { spots, high };
  }
}

/** A place of a piece on the picture: up the piece is up, its left is left. */
const at = (s: Spot, p: readonly number[], mirrored = false): XY => [
  s.x + (mirrored ? 1 : -1) * (p[1] ?? 0) * s.scale,
  s.y - (p[0] ?? 0) * s.scale,
];
const line = (s: Spot, run: readonly (readonly number[])[], mirrored = false) =>
  run.map((p) => at(s, p, mirrored).join(',')).join(' ');
/** The place halfway along a run. */
function middle(run: readonly (readonly number[])[]): readonly number[] {
  const parts = run.slice(1).map((q, i) => Math.hypot(q[0]! - run[i]![0]!, q[1]! - run[i]![1]!));
  let left = parts.reduce((sum, part) => sum + part, 0) / 2;
  for (const [i, part] of parts.entries()) {
    if (left <= part && part > 0) {
      const [p, q, share] = [run[i]!, run[i + 1]!, left / part];
      return [p[0]! + (q[0]! - p[0]!) * share, p[1]! + (q[1]! - p[1]!) * share];
    }
    left -= part;
  }
  return run[0] ?? [0, 0];
}

/** Where a seam's line begins and ends, and how it bows between the two. */
function thread(seam: Seam, of: Map<number, Spot>): { d: string; sign: XY } | undefined {
  const [a, b] = [of.get(seam.a.piece_id), of.get(seam.b.piece_id)];
  if (!a || !b || seam.a.run.length === 0) return undefined;
  const from = at(a, (seam.kind === 'laid on' && seam.a.key) || middle(seam.a.run));
  if (a === b && seam.same_way && !a.piece.mirror) {
    // an edge to its own mirror image: a loop
    const [x, y] = from;
    return { d: `M${x},${y} C${x - 44},${y - 46} ${x + 44},${y - 46} ${x},${y}`, sign: [x, y - 35] };
  }
  const to = at(b, seam.b.place ?? middle(seam.b.run), a === b && seam.same_way);
  const bow = Math.max(18, Math.hypot(to[0] - from[0], to[1] - from[1]) * 0.16);
  const mid: XY = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2 - bow];
  return {
    d: `M${from.join(',')} Q${mid.join(',')} ${to.join(',')}`,
    sign: [(from[0] + to[0]) / 4 + mid[0] / 2, (from[1] + to[1]) / 4 + mid[1] / 2],
  };
}

/** Every piece with its edges, and the seams as lines between them: thick where bars shall meet. */
export function Diagram({
  match,
  width,
  height,
  chosen,
  first,
  parts,
  corners,
  placing,
  bars,
  onSeam,
  onEdge,
  onCorner,
  onPlace,
  onBars,
}: {
  match: Match;
  width: number;
  height: number;
  chosen: number | undefined;
  first: Touched | undefined;
  /** edges in their parts between notches */
  parts: boolean;
  corners: boolean;
  placing: boolean;
  /** bars drawn over a piece, which are dragged along it: the piece, and which place of the bars lies at its low end */
  bars: { piece: number; at: number } | undefined;
  onSeam: (id: number) => void;
  onEdge: (touched: Touched) => void;
  onCorner: (piece: number, key: number, corner: boolean) => void;
  onPlace: (piece: SeamPiece, along: number, across: number) => void;
  onBars: (moved: number, done: boolean) => void;
}) {
  const { spots, high } = useMemo(() => arrange(match.pieces, width, height), [match.pieces, width, height]);
  const of = new Map(spots.map((s) => [s.piece.id, s]));
  const press = (then: () => void) => ({
    onClick: then,
    onKeyDown: (e: KeyboardEvent) => {
      if (e.key === 'Enter' || e.key === ' ') {
        e.preventDefault();
        then();
      }
    },
  });
  const look = (seam: Seam) =>
    `${CLASSES[seam.verdict]}${seam.levels || seam.lengthwise ? ' asked' : ''}${seam.id === chosen ? ' chosen' : ''}`;
  const threads = match.seams.flatMap((seam) => {
    const drawn = thread(seam, of);
    return drawn ? [{ seam, drawn }] : [];
  });
  const isFirst = (piece: number, edge: SewnEdge) =>
    first?.piece.id === piece && first.edge.begin.after === edge.begin.after && first.edge.begin.at === edge.begin.at;
  return (
    <svg width={width} height={Math.max(high, 10)} className="garment-diagram">
      {spots.map((s) => {
        const { piece } = s;
        const edges = piece.edges.filter((e) => (parts ? !e.has_parts : e.whole));
        const label = at(s, [bounds(piece.outline).x1, (bounds(piece.outline).y0 + bounds(piece.outline).y1) / 2]);
        return (
          <g key={piece.id}>
            {piece.mirror && <polygon points={line(s, piece.outline, true)} className="diagram-other" />}
            <polygon
              points={line(s, piece.outline)}
              className={placing ? 'diagram-piece placing' : 'diagram-piece'}
              {...(placing && {
                tabIndex: 0,
                role: 'button',
                'aria-label': `On ${piece.name}`,
                onClick: (e: MouseEvent<SVGPolygonElement>) => {
                  const box = e.currentTarget.ownerSVGElement!.getBoundingClientRect();
                  onPlace(piece, (s.y - (e.clientY - box.top)) / s.scale, (s.x - (e.clientX - box.left)) / s.scale);
                },
                onKeyDown: (e: KeyboardEvent) => {
                  if (e.key !== 'Enter' && e.key !== ' ') return;
                  e.preventDefault();
                  const b = bounds(piece.outline);
                  onPlace(piece, (b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2);
                },
              })}
            />
            {bars?.piece === piece.id && <BarsOver s={s} match={match} at={bars.at} onBars={onBars} />}
            <text x={label[0]} y={label[1] - 10} textAnchor="middle" className="piece-name">
              {piece.name}
            </text>
            {edges.map((edge) => (
              <g key={edge.name} className={isFirst(piece.id, edge) ? 'diagram-edge first' : 'diagram-edge'}>
                <polyline points={line(s, edge.line)} className="edge-line" />
                <polyline
                  points={line(s, edge.line)}
                  className="edge-hit"
                  tabIndex={0}
                  role="button"
                  aria-pressed={isFirst(piece.id, edge)}
                  aria-label={`${piece.name}, edge from ${edge.name}, ${edge.long.text}`}
                  {...press(() => onEdge({ piece, edge }))}
                />
              </g>
            ))}
            {corners &&
              piece.corners.map((c) => {
                const [x, y] = at(s, c.place);
                return (
                  <g
                    key={c.key}
                    tabIndex={0}
                    role="checkbox"
                    aria-checked={c.corner}
                    aria-label={`${piece.name}, point ${c.number}: a corner`}
                    className={c.corner ? 'diagram-corner on' : 'diagram-corner'}
                    {...press(() => onCorner(piece.id, c.key, !c.corner))}
                  >
                    <circle cx={x} cy={y} r={11} className="corner-hit" />
                    <rect x={x - 4} y={y - 4} width={8} height={8} />
                  </g>
                );
              })}
          </g>
        );
      })}
      {threads.map(({ seam, drawn }) => (
        <path key={seam.id} d={drawn.d} className={`thread-line ${look(seam)}`} />
      ))}
      {threads.map(({ seam, drawn }) => (
        <g
          key={seam.id}
          className={`thread ${look(seam)}`}
          tabIndex={0}
          role="button"
          aria-pressed={seam.id === chosen}
          aria-label={`The seam ${called(seam)}: ${seam.told}`}
          {...press(() => onSeam(seam.id))}
        >
          <circle cx={drawn.sign[0]} cy={drawn.sign[1]} r={20} className="thread-hit" />
          <circle cx={drawn.sign[0]} cy={drawn.sign[1]} r={11} className="thread-sign" />
          <text x={drawn.sign[0]} y={drawn.sign[1] + 5} textAnchor="middle" aria-hidden="true">
            {SIGNS[seam.verdict]}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** The bars across the garment over one piece: dragged up and down they are wished for elsewhere. */
function BarsOver({
  s,
  match,
  at: low,
  onBars,
}: {
  s: Spot;
  match: Match;
  at: number;
  onBars: (moved: number, done: boolean) => void;
}) {
  const { x, x_repeat: repeat, ground } = match.bars;
  const dragged = useRef<number>(undefined);
  if (!repeat) return null;
  const b = bounds(s.piece.outline);
  const begin = x[0]?.begins ?? 0;
  const rows = [];
  for (let from = b.x0 - repeat; from < b.x1 + repeat; from += repeat)
    for (const bar of x) {
      if (bar.colour.toLowerCase() === ground.toLowerCase()) continue;
      // the place of the bars at the piece's low end is `low`
      const up = from - ((((low - begin) % repeat) + repeat) % repeat) + (bar.begins - begin);
      rows.push({ up, width: bar.width, colour: bar.colour });
    }
  const clip = `over-${s.piece.id}`;
  const [left, right] = [at(s, [0, b.y1])[0], at(s, [0, s.piece.mirror ? -b.y1 : b.y0])[0]];
  const move = (e: PointerEvent<SVGGElement>, done: boolean) => {
    if (dragged.current === undefined) return;
    onBars((e.clientY - dragged.current) / s.scale, done);
    if (done) dragged.current = undefined;
  };
  return (
    <g
      className="bars-over"
      clipPath={`url(#${clip})`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        dragged.current = e.clientY;
      }}
      onPointerMove={(e) => move(e, false)}
      onPointerUp={(e) => move(e, true)}
    >
      <clipPath id={clip}>
        <polygon points={line(s, s.piece.outline)} />
        {s.piece.mirror && <polygon points={line(s, s.piece.outline, true)} />}
      </clipPath>
      <rect x={left} width={right - left} y={at(s, [b.x1, 0])[1]} height={(b.x1 - b.x0) * s.scale} fill={ground} />
      {rows.map((r) => (
        <rect
          key={r.up}
          x={left}
          width={right - left}
          y={s.y - (r.up + r.width) * s.scale}
          height={r.width * s.scale}
          fill={r.colour}
        />
      ))}
    </g>
  );
}
