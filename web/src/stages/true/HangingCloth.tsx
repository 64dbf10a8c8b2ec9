import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import type { Cloth } from '../../api/client';
import { ClothPattern } from '../../draw/ClothPattern';
import { useTape } from '../../api/hooks';
import { useSize } from '../../draw/useSize';

type Props = {
  cloth: Cloth;
  /** mm, selvage to selvage */
  wide: number;
  /** signed mm: above nothing, the far selvage's corner sticks out */
  offset: number;
  bow: number;
  ripple: string;
  /** what the largest reading on the picture is, so that the scale stays still while it is dragged */
  largest: number;
  /** the reading as text, beside the handle */
  told: string;
  /** not tested since the cloth was treated: its edge is dashed */
  predicted?: boolean;
  onDrag: (reading: { offset: number; bow: number } | undefined) => void;
  onDrop: (reading: { offset: number; bow: number }) => void;
};

const TOP = 46;

/** The folded cloth hanging by its selvages, its edge drawn from what was read. Both corners can be dragged. */
export function HangingCloth({
  cloth,
  wide,
  offset,
  bow,
  ripple,
  largest,
  told,
  predicted = false,
  onDrag,
  onDrop,
}: Props) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const grip = useRef<{ what: 'offset' | 'bow'; x: number; from: number }>(undefined);
  const tape = useTape();
  const scale = Math.max(0.05, (height - TOP - 60) / (wide / 2));
  // the slant of a real cloth can hardly be seen: its edge is drawn larger, and that is said
  const times = Math.max(1, Math.min(8, Math.floor(150 / Math.max(12, largest) / scale)));
  const mm = scale * times;
  const x0 = Math.max(220, width * 0.26);
  const right = width - 16;
  const bottom = TOP + (wide / 2) * scale;
  const far = x0 - offset * mm;
  const fold = x0 - (offset / 2) * mm - bow * mm;
  const reading = (what: 'offset' | 'bow', value: number) => ({
    offset: what === 'offset' ? Math.max(-wide * 0.5, Math.min(wide * 0.5, Math.round(value))) : offset,
    bow: what === 'bow' ? Math.max(0, Math.min(wide * 0.5, Math.round(value))) : bow,
  });
  const at = (event: PointerEvent) => {
    const held = grip.current!;
    return reading(held.what, held.from - (event.clientX - held.x) / mm);
  };
  const handle = (what: 'offset' | 'bow', x: number, y: number, label: string, value: number) => (
    <g
      className="handle"
      tabIndex={0}
      role="slider"
      aria-label={label}
      aria-valuenow={Math.round(value)}
      aria-valuemin={what === 'bow' ? 0 : -200}
      aria-valuemax={200}
      aria-valuetext={`${(value / tape.mm).toFixed(tape.imperial ? 2 : 1)} ${tape.unit}`}
      transform={`translate(${x} ${y})`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        grip.current = { what, x: e.clientX, from: value };
      }}
      onPointerMove={(e) => {
        if (grip.current) onDrag(at(e));
      }}
      onPointerUp={(e) => {
        if (grip.current) {
          const last = at(e);
          grip.current = undefined;
          onDrop(last);
        }
      }}
      onPointerCancel={() => {
        grip.current = undefined;
        onDrag(undefined);
      }}
      onKeyDown={(e: KeyboardEvent) => {
        const by = { ArrowLeft: 1, ArrowRight: -1 }[e.key];
        if (!by) return;
        e.preventDefault();
        onDrop(reading(what, value + by * (e.shiftKey ? 10 : 1)));
      }}
    >
      <circle r={17} className="handle-reach" />
      <circle r={9} />
      <path d="M-22,0 h8 M-22,0 l5,-4 M-22,0 l5,4 M22,0 h-8 M22,0 l-5,-4 M22,0 l-5,4" />
    </g>
  );
  const ripples = ripple === '' ? [] : Array.from({ length: 7 }, (_, k) => x0 + 90 + k * ((right - x0 - 140) / 7));
  const lean = ripple === 'out' ? -46 : 46;
  return (
    <div className={predicted ? 'picture hanging predicted' : 'picture hanging'} ref={ref}>
      {width > 0 && (
        <svg width={width} height={height} data-mm={mm}>
          <defs>
            <ClothPattern id="hanging" cloth={cloth} scale={scale} x0={x0} y0={bottom} left={cloth.bars_now} />
          </defs>
          <line x1={20} x2={width - 8} y1={TOP - 8} y2={TOP - 8} className="rod" />
          <path
            d={`M${far},${TOP} Q${(far + fold) / 2 - bow * mm * 0.2},${(TOP + bottom) / 2} ${fold},${bottom} L${right},${bottom} L${right},${TOP} Z`}
            className="back-layer"
          />
          {['url(#hanging)', 'url(#hanging-weave)'].map((fill) => (
            <path
              key={fill}
              d={`M${x0},${TOP} Q${(x0 + fold) / 2 - bow * mm * 0.2},${(TOP + bottom) / 2} ${fold},${bottom} L${right},${bottom} L${right},${TOP} Z`}
              fill={fill}
              className="front-layer"
            />
          ))}
          <path
            d={`M${x0},${TOP} Q${(x0 + fold) / 2 - bow * mm * 0.2},${(TOP + bottom) / 2} ${fold},${bottom}`}
            className="front-edge"
          />
          <path
            d={`M${far},${TOP} Q${(far + fold) / 2 - bow * mm * 0.2},${(TOP + bottom) / 2} ${fold},${bottom}`}
            className="back-edge"
          />
          <line x1={Math.min(x0, far)} x2={right} y1={TOP} y2={TOP} className="selvage" />
          <line x1={fold} x2={right} y1={bottom} y2={bottom} className="fold" />
          {ripples.map((x) => (
            <path key={x} d={`M${x},${bottom - 4} q${lean / 2},${-60} ${lean},${-130}`} className="ripple" />
          ))}
          {Math.abs(offset) >= 0.5 && (
            <g className="reading">
              <path d={`M${x0},${TOP - 22} V${TOP - 14} M${far},${TOP - 22} V${TOP - 14} M${x0},${TOP - 18} H${far}`} />
              <rect
                x={(x0 + far) / 2 - (predicted ? 56 : 34)}
                y={TOP - 44}
                width={predicted ? 112 : 68}
                height={23}
                rx={4}
              />
              <text x={(x0 + far) / 2} y={TOP - 27} textAnchor="middle">
                {told}
              </text>
            </g>
          )}
          <text x={right} y={TOP - 20} textAnchor="end" className="label">
            selvages together, held level
          </text>
          <text x={right} y={bottom + 22} textAnchor="end" className="label">
            the fold hangs here
          </text>
          <text x={20} y={bottom + 44} className="label">
            tested end at the left; the near selvage in front
            {times > 1 ? `; the edge is drawn ${times} times as slanted` : ''}
          </text>
          {handle('bow', fold, bottom, 'how far the edge bows out at the fold', bow)}
          {handle('offset', far, TOP, "the far selvage's corner", offset)}
        </svg>
      )}
    </div>
  );
}
