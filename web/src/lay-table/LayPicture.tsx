import { type KeyboardEvent, type PointerEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Aside, Cloth, Drawing, Gesture, Lay, Place, Shape } from '../api/client';
import { useTape } from '../api/hooks';
import { ClothPattern } from '../draw/ClothPattern';
import { points } from '../draw/outline';
import { Ruler } from '../draw/Ruler';
import { useSize } from '../draw/useSize';
import { Agreeing } from './Agreeing';
import { ClothOnTable } from './ClothOnTable';
import { MapOfCloth } from './MapOfCloth';
import { Distances, Placed } from './Placed';
import { TapeMeasure } from './TapeMeasure';
import { Tray } from './Tray';
import { type Hold, useHold } from './useHold';

type Props = {
  lay: Lay;
  drawing: Drawing;
  cloth: Cloth;
  chosen: readonly string[];
  onChoose: (keys: string[]) => void;
  onDo: (gesture: Gesture) => Promise<boolean>;
  several: boolean;
  loose: boolean;
  measuring: boolean;
};

const PAD = { left: 34, top: 40, right: 96, bottom: 62 };
/** So much cloth is shown behind the lay while something is in the hand, mm; and near an edge the picture follows. */
const BEHIND_MM = 1500;
const EDGE_PX = 36;
/** A press becomes a drag once the pointer went so far, px. */
const DRAG_PX = 5;
const ZOOM = { least: 1, most: 12, step: 1.25 };

/** The lay on its cloth, along the screen: rulers on its selvages, pieces as tracing paper that a hand can move. */
export function LayPicture({ lay, drawing, cloth, chosen, onChoose, onDo, several, loose, measuring }: Props) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const tape = useTape();
  const [zoom, setZoom] = useState(1);
  const pinned = drawing.view === 'pinned';
  const svg = useRef<SVGSVGElement>(null);
  const frame = useRef<HTMLDivElement>(null);
  const framed = useCallback(
    (box: HTMLDivElement | null) => {
      frame.current = box;
      ref(box);
    },
    [ref],
  );

  const low = Math.min(...drawing.stretches.map((s) => s.low - s.margins[0]));
  const high = Math.max(...drawing.stretches.map((s) => s.high + s.margins[1]));
  const shown = drawing.length * 1.06 + (lay.tray.length > 0 ? 150 : 0);
  const tall = Math.max(120, height - PAD.top - PAD.bottom);
  const whole = Math.max(0.01, Math.min((width - PAD.left - PAD.right) / Math.max(shown, 1), tall / (high - low)));
  const scale = whole * zoom;
  const x0 = PAD.left;
  const y0 = PAD.top + high * scale;
  const at = useMemo(
    () =>
      (x: number, y: number): [number, number] => [x0 + x * scale, y0 - y * scale],
    [x0, y0, scale],
  );
  const bottom = y0 - low * scale;
  const drop = useCallback(
    async (hold: Hold, place: Place) => {
      await onDo({
        do: 'move',
        keys: hold.keys,
        piece: hold.piece ?? '',
        mirrored: hold.mirrored ?? false,
        x: place.x,
        y: place.y,
        section: place.section,
        loose,
      });
    },
    [onDo, loose],
  );
  const { hold, place, light, take, carry, letGo, leave } = useHold(lay.lay_id, loose, drop);
  const right = x0 + (shown + (hold ? BEHIND_MM : 0)) * scale;
  const end = x0 + drawing.length * scale;
  const bound = x0 + lay.bound.mm * scale;
  const offset = pinned ? (drawing.stretches[0]?.offset ?? 0) : 0;

  /** A pointer's place on the open cloth, mm. */
  const onCloth = useCallback(
    (event: { clientX: number; clientY: number }): [number, number] => {
      const box = svg.current!.getBoundingClientRect();
      return [(event.clientX - box.left - x0) / scale + offset, (y0 - (event.clientY - box.top)) / scale];
    },
    [x0, y0, scale, offset],
  );

  // what is pressed, before it is known whether it is a choice or a drag
  const pressed = useRef<{ shape: Shape; x: number; y: number; id: number; dragging: boolean }>(undefined);
  const byKey = useMemo(() => new Map(drawing.shapes.map((s) => [s.pinned, s])), [drawing]);

  const shapeAt = (event: { target: EventTarget }) => {
    const group = (event.target as Element).closest<SVGGElement>('.laid');
    return group ? byKey.get(group.dataset['pinned'] ?? '') : undefined;
  };
  /** What is meant where a piece is taken: all that is chosen if it is among them. What is gone meanwhile is not. */
  const withChosen = (shape: Shape) =>
    chosen.includes(shape.pinned) ? chosen.filter((key) => byKey.has(key)) : [shape.pinned];
  const chooseOnly = useCallback(
    (shape: Shape, more: boolean) => {
      if (!more) onChoose([shape.pinned]);
      else if (chosen.includes(shape.pinned)) onChoose(chosen.filter((key) => key !== shape.pinned));
      else onChoose([...chosen, shape.pinned]);
    },
    [chosen, onChoose],
  );

  const fingers = useRef(new Map<number, [number, number]>());
  // the cloth itself, taken where no piece lies: it is carried along under the frame
  const panned = useRef<{ id: number; x: number; y: number }>(undefined);
  function down(event: PointerEvent) {
    const shape = shapeAt(event);
    if (event.button > 0 || measuring) return;
    if (!shape) panned.current = { id: event.pointerId, x: event.clientX, y: event.clientY };
    if (!shape) return;
    pressed.current = { shape, x: event.clientX, y: event.clientY, id: event.pointerId, dragging: false };
  }
  function pan(event: PointerEvent) {
    const from = panned.current;
    const box = frame.current;
    if (!from || !box || from.id !== event.pointerId || fingers.current.size > 1) return;
    const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
    panned.current = { id: from.id, x: event.clientX, y: event.clientY };
    const top = box.scrollTop;
    box.scrollBy(-dx, -dy);
    // a picture that is seen whole takes the page along
    if (event.pointerType === 'touch' && box.scrollTop === top) box.closest('main')?.scrollBy(0, -dy);
  }
  function move(event: PointerEvent) {
    pan(event);
    const press = pressed.current;
    if (!press || press.id !== event.pointerId) return;
    if (!press.dragging) {
      if (!pinned || Math.hypot(event.clientX - press.x, event.clientY - press.y) < DRAG_PX) return;
      press.dragging = true;
      svg.current?.setPointerCapture(event.pointerId);
      const group = withChosen(press.shape);
      if (!chosen.includes(press.shape.pinned)) onChoose(group);
      const first = byKey.get(group[0]!)!;
      take({ keys: group, origin: first.origin, pointer: onCloth({ clientX: press.x, clientY: press.y }) }, scale);
    }
    follow(event.clientX);
    carry(...onCloth(event));
  }
  /** Near its edges the picture goes along with the hand. */
  function follow(x: number) {
    const box = frame.current;
    if (!box) return;
    const { left, right: end } = box.getBoundingClientRect();
    if (x > end - EDGE_PX) box.scrollBy({ left: x - end + EDGE_PX });
    else if (x < left + EDGE_PX) box.scrollBy({ left: x - left - EDGE_PX });
  }
  function up(event: PointerEvent) {
    const press = pressed.current;
    pressed.current = panned.current = undefined;
    if (!press) return;
    if (press.dragging) letGo();
    else if (shapeAt(event)) chooseOnly(press.shape, several || event.shiftKey || event.ctrlKey || event.metaKey);
  }

  // taken from the tray: the hand holds it by its middle
  const fromTray = useRef<number>(undefined);
  function lift(aside: Aside, event: PointerEvent) {
    const xs = aside.outline.map((p) => p[0]);
    const ys = aside.outline.map((p) => p[1]);
    const middle = [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2] as const;
    const pointer = onCloth(event);
    fromTray.current = event.pointerId;
    take(
      {
        keys: [],
        piece: aside.piece,
        mirrored: aside.mirrored > 0,
        origin: [pointer[0] - middle[0], pointer[1] - middle[1]],
        pointer,
      },
      scale,
    );
  }
  useEffect(() => {
    if (!hold?.piece) return undefined;
    const go = (event: globalThis.PointerEvent) => event.pointerId === fromTray.current && carry(...onCloth(event));
    const done = (event: globalThis.PointerEvent) => event.pointerId === fromTray.current && letGo();
    window.addEventListener('pointermove', go);
    window.addEventListener('pointerup', done);
    window.addEventListener('pointercancel', leave);
    return () => {
      window.removeEventListener('pointermove', go);
      window.removeEventListener('pointerup', done);
      window.removeEventListener('pointercancel', leave);
    };
  }, [hold?.piece, carry, letGo, leave, onCloth]);

  // pushed by keys: what is pressed while an answer is on its way is sent together
  const pushing = useRef({ x: 0, y: 0, busy: false });
  const nudge = useCallback(
    async (keys: string[], dx: number, dy: number) => {
      const push = pushing.current;
      push.x += dx;
      push.y += dy;
      if (push.busy) return;
      push.busy = true;
      while (push.x !== 0 || push.y !== 0) {
        const { x, y } = push;
        push.x = push.y = 0;
        if (!(await onDo({ do: 'nudge', keys, x, y, loose }))) break;
      }
      push.x = push.y = 0;
      push.busy = false;
    },
    [onDo, loose],
  );

  function key(event: KeyboardEvent) {
    const shape = shapeAt(event);
    if (!shape || event.ctrlKey || event.metaKey) return;
    const mine = withChosen(shape);
    const step = lay.nudge.mm * (event.shiftKey ? 10 : 1);
    const arrow = { ArrowRight: [1, 0], ArrowLeft: [-1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    // with Alt the next place at which its bars agree, without it as far as a tape is read
    if (event.altKey && !(arrow && pinned)) return;
    const steps = { PageDown: 1, PageUp: -1 }[event.key];
    const gestures: Record<string, Gesture> = {
      t: { do: 'turn', keys: mine, by: 180, loose },
      q: { do: 'turn', keys: mine, by: 90, loose },
      o: { do: 'over', keys: mine, loose },
      a: { do: 'aside', keys: mine },
      delete: { do: 'aside', keys: mine },
      l: { do: 'lock', keys: mine },
    };
    const gesture = gestures[event.key.toLowerCase()];
    if (event.key === 'Enter' || event.key === ' ') chooseOnly(shape, several || event.shiftKey);
    else if (event.key === 'Escape') {
      if (hold) leave();
      else onChoose([]);
    } else if (arrow && pinned) {
      if (!chosen.includes(shape.pinned)) onChoose(mine);
      if (event.altKey) void onDo({ do: 'step', keys: mine, x: arrow[0]!, y: arrow[1]!, loose });
      else void nudge(mine, arrow[0]! * step, arrow[1]! * step);
    } else if (steps) {
      const all = [...svg.current!.querySelectorAll<SVGGElement>('.laid')];
      const here = all.findIndex((one) => one.dataset['pinned'] === shape.pinned);
      const next = all[(here + steps + all.length) % all.length];
      next?.focus();
      if (next) onChoose([next.dataset['pinned']!]);
    } else if (gesture && pinned) {
      if (!chosen.includes(shape.pinned)) onChoose(mine);
      void onDo(gesture);
    } else return;
    event.preventDefault();
  }

  // zoomed about a place that stays where it is
  const zoomTo = useCallback(
    (next: number, x?: number, y?: number) => {
      const box = frame.current;
      const to = Math.min(ZOOM.most, Math.max(ZOOM.least, next));
      if (!box || to === zoom) return;
      const px = x ?? box.clientWidth / 2;
      const py = y ?? box.clientHeight / 2;
      const k = to / zoom;
      const [left, top] = [
        (box.scrollLeft + px - PAD.left) * k + PAD.left - px,
        (box.scrollTop + py - PAD.top) * k + PAD.top - py,
      ];
      setZoom(to);
      requestAnimationFrame(() => {
        box.scrollTo({ left, top });
      });
    },
    [zoom, frame],
  );
  useEffect(() => {
    const box = frame.current;
    if (!box) return undefined;
    const wheel = (event: WheelEvent) => {
      if (!event.ctrlKey) return;
      event.preventDefault();
      const { left, top } = box.getBoundingClientRect();
      zoomTo(zoom * Math.exp(-event.deltaY / 250), event.clientX - left, event.clientY - top);
    };
    box.addEventListener('wheel', wheel, { passive: false });
    return () => box.removeEventListener('wheel', wheel);
  }, [zoom, zoomTo, frame]);
  // two fingers
  function spread(event: PointerEvent, gone = false) {
    const all = fingers.current;
    if (event.pointerType !== 'touch') return;
    const before = [...all.values()];
    if (gone) all.delete(event.pointerId);
    else all.set(event.pointerId, [event.clientX, event.clientY]);
    const after = [...all.values()];
    if (before.length !== 2 || after.length !== 2) return;
    const far = ([a, b]: [number, number][]) => Math.hypot(a![0] - b![0], a![1] - b![1]) || 1;
    const box = frame.current!.getBoundingClientRect();
    const [a, b] = after as [[number, number], [number, number]];
    zoomTo((zoom * far(after)) / far(before), (a[0] + b[0]) / 2 - box.left, (a[1] + b[1]) / 2 - box.top);
  }

  function look(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === '+' || event.key === '=') zoomTo(zoom * ZOOM.step);
    else if (event.key === '-') zoomTo(zoom / ZOOM.step);
    else if (event.key === '0') zoomTo(1);
    else return;
    event.preventDefault();
  }

  const selected = chosen.length === 1 ? byKey.get(chosen[0]!) : undefined;
  const lifted = hold && place ? hold.keys : [];
  const wide = Math.max(right + PAD.right, 10);
  return (
    <div className="lay-view">
      {/* oxlint-disable-next-line jsx-a11y/no-static-element-interactions -- hears the keys of what lies in it */}
      <div className="lay-frame" onKeyDown={look}>
        <div className="zoom" role="group" aria-label="View">
          <button type="button" onClick={() => zoomTo(1)} aria-pressed={zoom === 1}>
            whole lay
          </button>
          <button type="button" onClick={() => zoomTo(tall / (high - low) / whole)}>
            whole width
          </button>
          <button type="button" aria-label="Nearer" onClick={() => zoomTo(zoom * ZOOM.step)}>
            +
          </button>
          <button type="button" aria-label="Further" onClick={() => zoomTo(zoom / ZOOM.step)}>
            −
          </button>
        </div>
        {/* oxlint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- it is scrolled, and zoomed by keys */}
        <div
          className="picture lay-picture"
          ref={framed}
          data-zoom={zoom}
          role="region"
          aria-label="The lay on its cloth"
          tabIndex={0}
        >
          {width > 0 && (
            // oxlint-disable-next-line jsx-a11y/no-static-element-interactions -- its pieces are buttons; it hears them
            <svg
              ref={svg}
              width={zoom === 1 && !hold ? width : wide}
              height={Math.max(bottom + PAD.bottom, 10)}
              viewBox={`0 0 ${zoom === 1 && !hold ? width : wide} ${Math.max(bottom + PAD.bottom, 10)}`}
              data-scale={scale}
              className={hold ? 'holding' : undefined}
              onPointerDown={(e) => {
                spread(e);
                down(e);
              }}
              onPointerMove={(e) => {
                spread(e);
                move(e);
              }}
              onPointerUp={(e) => {
                spread(e, true);
                up(e);
              }}
              onPointerCancel={(e) => {
                spread(e, true);
                pressed.current = panned.current = undefined;
                leave();
              }}
              onKeyDown={key}
              onClick={(e) => {
                if (!(e.target as Element).closest('.laid') && !several && !measuring) onChoose([]);
              }}
            >
              <defs>
                <ClothPattern id="lay-cloth" cloth={cloth} scale={scale} x0={x0} y0={y0 + lay.margins[0] * scale} />
                <pattern id="two-layers" patternUnits="userSpaceOnUse" width="9" height="9">
                  <path d="M-1,10 L10,-1" stroke="#23272e" strokeOpacity="0.16" strokeWidth="1" />
                </pattern>
              </defs>
              <ClothOnTable drawing={drawing} at={{ scale, x0, y0 }} right={right} />
              <Steps
                step={lay.step}
                length={drawing.length}
                end={shown}
                at={at}
                low={low}
                high={high}
                offset={offset}
              />
              <Ruler scale={scale} length={shown} unit={tape.mm} imperial={tape.imperial} x={x0} y={PAD.top - 5} />
              <Ruler scale={scale} length={shown} unit={tape.mm} imperial={tape.imperial} x={x0} y={bottom + 4} below />
              <text x={x0 - 8} y={PAD.top - 17} className="label" textAnchor="end">
                {tape.unit}
              </text>
              {light?.map((band) =>
                band.runs.map(([a, b]) => (
                  <rect
                    key={`${band.low} ${a}`}
                    className="lit"
                    x={x0 + (a - offset) * scale}
                    y={y0 - band.high * scale}
                    width={(b - a) * scale}
                    height={(band.high - band.low) * scale}
                  />
                )),
              )}
              {drawing.shapes.map((shape) => (
                <Placed
                  key={shape.key}
                  shape={shape}
                  scale={scale}
                  x0={x0}
                  y0={y0}
                  chosen={chosen.includes(shape.pinned)}
                  lifted={lifted.includes(shape.pinned)}
                  oneWay={cloth.one_way}
                />
              ))}
              {hold && place && (
                <InHand hold={hold} place={place} shapes={byKey} at={{ scale, x0, y0 }} offset={offset} />
              )}
              {selected && !hold && pinned && <Agreeing lay={lay} shape={selected} at={at} />}
              {selected && !hold && <Distances shape={selected} drawing={drawing} lay={lay} at={at} scale={scale} />}
              <line className="lay-end" x1={end} x2={end} y1={PAD.top - 16} y2={bottom + 8} />
              <text x={end} y={bottom + 42} textAnchor="end" className="lay-end-text">
                lay {lay.length.text}
                {drawing.length < lay.length.mm - 0.5 && ', here doubled'}
              </text>
              {lay.bound.mm > 0 && bound < end - 150 && drawing.length === lay.length.mm && (
                <>
                  <line className="lay-bound" x1={bound} x2={bound} y1={bottom + 2} y2={bottom + 24} />
                  <text x={bound} y={bottom + 42} textAnchor="end" className="label">
                    cannot be shorter than {lay.bound.text}
                  </text>
                </>
              )}
              <text x={x0} y={bottom + 56} className="label">
                {caption(drawing)}
                {cloth.one_way ? '; all tops to the right' : ''}
              </text>
              {measuring && (
                <TapeMeasure onCloth={onCloth} at={at} offset={offset} area={[wide, bottom + PAD.bottom]} />
              )}
            </svg>
          )}
        </div>
        {zoom > 1 && (
          <MapOfCloth drawing={drawing} low={low} high={high} frame={frame} scale={scale} pad={PAD} shown={shown} />
        )}
      </div>
      {pinned && lay.tray.length > 0 && <Tray tray={lay.tray} onLift={lift} onDo={onDo} />}
    </div>
  );
}

/** What the picture shows, in a line under it. */
function caption(drawing: Drawing): string {
  if (drawing.view === 'opened') return 'opened out: near selvage below, folds as creases';
  const folds = new Set(drawing.stretches.map((s) => s.fold));
  if (folds.size > 1) return 'stretch by stretch: cut off, then fold the rest anew';
  const [fold] = [...folds];
  return (
    {
      open: 'near selvage below',
      lengthwise: 'fold along the lower edge, selvages together at the top',
      partial: 'fold along the lower edge; the lower layer ends at the dashed line',
      double: 'a fold along each edge, the selvages between',
      crosswise: 'fold at the left, both cut ends together at the right',
    }[fold ?? 'open'] ?? ''
  );
}

/** What the shop cuts in, marked along the lower selvage. */
function Steps({
  step,
  length,
  end,
  at,
  low,
  high,
  offset,
}: {
  step: number;
  length: number;
  end: number;
  at: (x: number, y: number) => [number, number];
  low: number;
  high: number;
  offset: number;
}) {
  if (step <= 0 || offset > 0) return null;
  const marks = [];
  for (let x = step; x <= end; x += step) {
    const [px, py] = at(x, low);
    const next = x >= length && x - step < length;
    marks.push(
      <path
        key={x}
        className={next ? 'shop-step next' : 'shop-step'}
        d={`M${px},${py} v-7 M${px},${at(x, high)[1]} v7`}
      />,
    );
  }
  return <g aria-hidden="true">{marks}</g>;
}

/** What the hand holds, where it may lie. */
function InHand({
  hold,
  place,
  shapes,
  at,
  offset,
}: {
  hold: Hold;
  place: Place;
  shapes: Map<string, Shape>;
  at: { scale: number; x0: number; y0: number };
  offset: number;
}) {
  const { scale, x0, y0 } = at;
  const dx = (place.x - hold.origin[0]) * scale;
  const dy = -(place.y - hold.origin[1]) * scale;
  return (
    <g className="in-hand" data-x={place.x} data-y={place.y} data-caught={place.caught.join(' ')}>
      {place.outline ? (
        <polygon
          points={points(
            place.outline.map(([x, y]): [number, number] => [x + place.x - offset, y + place.y]),
            scale,
            x0,
            y0,
          )}
        />
      ) : (
        hold.keys.map((key) => {
          const shape = shapes.get(key);
          return (
            shape && (
              <polygon key={key} points={points(shape.outline, scale, x0, y0)} transform={`translate(${dx} ${dy})`} />
            )
          );
        })
      )}
    </g>
  );
}
