import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import type { Outline } from '../../../api/client';
import { useTape } from '../../../api/hooks';
import { bounds } from '../../../draw/outline';
import { PieceShape } from '../../../draw/PieceShape';

const WIDE = 460;
const HIGH = 560;
const ROOM = 34;

type Props = {
  outline: Outline;
  onFold: boolean;
  oneWay: boolean;
  chosen: number | undefined;
  /** what is being drawn: a touch of the picture is its next place */
  placing: string | undefined;
  onPlace: (along: number, across: number) => void;
  onChoose: (key: number) => void;
  /** a point was moved to a place, mm */
  onMove: (key: number, along: number, across: number) => void;
  /** a point goes so far from where it is now, to whole marks of the tape; mm */
  onNudge: (key: number, along: number, across: number, fine: number) => void;
  onTurn: (key: number) => void;
  onTakeOut: (key: number) => void;
  /** a point is put after another, at a place */
  onAdd: (after: number, along: number, across: number) => void;
};

/** The piece as it is told, standing upright; its points are dragged, or moved by keys. */
export function PiecePicture(props: Props) {
  const { outline, chosen } = props;
  const tape = useTape();
  const svg = useRef<SVGSVGElement>(null);
  const dragged = useRef<number>(undefined);
  // while a point is dragged the picture keeps its scale, so that the point stays under the hand
  const frame = useRef<{ scale: number; x: number; y: number }>(undefined);
  const { x0, y0, x1, y1 } = bounds([...outline.cut, ...outline.outline]);
  const scale = Math.min((WIDE - 2 * ROOM) / Math.max(1, y1 - y0), (HIGH - 2 * ROOM) / Math.max(1, x1 - x0));
  const now = { scale, x: WIDE / 2 + ((y0 + y1) / 2) * scale, y: HIGH / 2 + ((x0 + x1) / 2) * scale };
  if (dragged.current === undefined || !frame.current) frame.current = now;
  const at = frame.current;
  const fine = tape.imperial ? tape.mm / 16 : 1;
  const coarse = tape.imperial ? tape.mm / 2 : 10;
  const rounded = (mm: number) => Math.round(mm / fine) * fine;
  const on = (along: number, across: number) => ({ x: at.x - across * at.scale, y: at.y - along * at.scale });

  function placed(event: { clientX: number; clientY: number }): [number, number] {
    const box = svg.current!.getBoundingClientRect();
    const zoom = box.width / WIDE;
    const x = (event.clientX - box.left) / zoom;
    const y = (event.clientY - box.top) / zoom;
    return [rounded((at.y - y) / at.scale), rounded((at.x - x) / at.scale)];
  }

  function down(event: PointerEvent, key: number) {
    event.preventDefault();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    (event.currentTarget as SVGGElement).focus();
    dragged.current = key;
    props.onChoose(key);
  }
  function move(event: PointerEvent) {
    if (dragged.current !== undefined) props.onMove(dragged.current, ...placed(event));
  }

  /** A place near the line becomes a point of it. */
  function add(event: PointerEvent) {
    const [along, across] = placed(event);
    let best = { off: Infinity, i: 0 };
    outline.outline.forEach((a, i) => {
      const b = outline.outline[(i + 1) % outline.outline.length]!;
      const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
      const t = Math.max(
        0,
        Math.min(1, ((along - a[0]) * dx + (across - a[1]) * dy) / Math.max(1e-9, dx * dx + dy * dy)),
      );
      const off = Math.hypot(along - a[0] - t * dx, across - a[1] - t * dy);
      if (off < best.off) best = { off, i };
    });
    const after = outline.at.findLastIndex((start) => start <= best.i);
    const point = outline.points[after];
    if (point) props.onAdd(point.key, along, across);
  }

  function key(event: KeyboardEvent, index: number) {
    const point = outline.points[index]!;
    const step = event.shiftKey ? coarse : fine;
    const ways: Record<string, [number, number]> = {
      ArrowUp: [step, 0],
      ArrowDown: [-step, 0],
      ArrowLeft: [0, step],
      ArrowRight: [0, -step],
    };
    const way = ways[event.key];
    const other =
      event.key === 'PageDown' || event.key === 'n'
        ? index + 1
        : event.key === 'PageUp' || event.key === 'p'
          ? index - 1
          : undefined;
    if (way) props.onNudge(point.key, way[0], way[1], fine);
    else if (other !== undefined) {
      const following = outline.points[(other + outline.points.length) % outline.points.length]!;
      props.onChoose(following.key);
      svg.current?.querySelector<SVGGElement>(`[data-point="${following.key}"]`)?.focus();
    } else if (event.key === ' ' || event.key === 'c') props.onTurn(point.key);
    else if (event.key === 'Delete' || event.key === 'Backspace') props.onTakeOut(point.key);
    else if (event.key === '+' || event.key === 'Insert') {
      const from = outline.at[index]!;
      const to = outline.at[index + 1] ?? outline.outline.length;
      const middle = from + Math.floor((to - from) / 2);
      const next = outline.points[(index + 1) % outline.points.length]!;
      const [along, across] =
        to - from > 1
          ? outline.outline[middle]!
          : [(point.along.mm + next.along.mm) / 2, (point.across.mm + next.across.mm) / 2];
      props.onAdd(point.key, rounded(along), rounded(across));
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  const shape = { ...outline, on_fold: props.onFold, one_way: props.oneWay };
  const line = outline.outline
    .map(([a, b]) => on(a, b))
    .map((p) => `${p.x},${p.y}`)
    .join(' ');
  // one stop for the whole run: the chosen point, or the first
  const stop = outline.points.some((p) => p.key === chosen) ? chosen : outline.points[0]?.key;
  return (
    <>
      <svg
        ref={svg}
        viewBox={`0 0 ${WIDE} ${HIGH}`}
        className={props.placing ? 'preview piece-picture placing' : 'preview piece-picture'}
        role="group"
        aria-label="The piece so far"
        onPointerDownCapture={(e) => {
          if (!props.placing) return;
          e.preventDefault();
          e.stopPropagation();
          props.onPlace(...placed(e));
        }}
        onPointerMove={move}
        onPointerUp={() => {
          dragged.current = undefined;
        }}
        onPointerCancel={() => {
          dragged.current = undefined;
        }}
      >
        <PieceShape piece={shape} scale={at.scale} x={at.x} y={at.y} />
        <polygon points={line} className="line-to-touch" onDoubleClick={(e) => add(e as unknown as PointerEvent)} />
        {outline.points.map((p, i) => {
          const { x, y } = on(p.along.mm, p.across.mm);
          return (
            <g
              key={p.key}
              data-point={p.key}
              tabIndex={p.key === stop ? 0 : -1}
              role="button"
              aria-pressed={p.key === chosen}
              aria-label={`Point ${i + 1}: ${p.along.text} along, ${p.across.text}, ${p.smooth ? 'smooth' : 'corner'}`}
              className={p.key === chosen ? 'knot chosen' : 'knot'}
              onPointerDown={(e) => down(e, p.key)}
              onFocus={() => props.onChoose(p.key)}
              onKeyDown={(e) => key(e, i)}
            >
              <circle cx={x} cy={y} r={15} className="knot-room" />
              {p.smooth ? <circle cx={x} cy={y} r={5} /> : <rect x={x - 5} y={y - 5} width={10} height={10} />}
              <text x={x + 9} y={y - 7}>
                {i + 1}
              </text>
            </g>
          );
        })}
      </svg>
      {props.placing && (
        <p className="look-again" role="status">
          {props.placing}
        </p>
      )}
      <p className="quiet">
        {outline.size}, at the cut line{outline.lean && `; the arrow leans ${outline.lean}`}
      </p>
    </>
  );
}
