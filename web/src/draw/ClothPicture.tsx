import { type PointerEvent, useRef, useState } from 'react';
import type { Cloth } from '../api/client';
import { useTape } from '../api/hooks';
import { ClothPattern } from './ClothPattern';
import { Ruler } from './Ruler';
import { useSize } from './useSize';

type Props = {
  cloth: Cloth;
  /** millimetres being typed now, in place of what is kept */
  typing: Record<string, number | undefined>;
  /** a flaw may be drawn with the pointer */
  placing?: boolean;
  chosenFlaw?: number | undefined;
  onChooseFlaw?: (i: number) => void;
  /** a box was drawn, in millimetres from the cut end and the near selvage */
  onPlace?: (spot: Spot) => void;
};

type Spot = { x: number; y: number; w: number; h: number };
/** A touch without a stroke marks a spot of this size, millimetres. */
const TOUCH = 20;

const PAD = { left: 66, top: 44, right: 30, bottom: 34 };

/** A ragged cut end: small teeth down the right edge. */
export function ragged(x: number, top: number, bottom: number): string {
  let d = '';
  for (let y = top, i = 0; y < bottom; y += 7, i++) d += ` L${x + [0, 4, 1, 6, 2, 5, 1, 3][i % 8]!},${y}`;
  return `${d} L${x},${bottom}`;
}

/** The cloth to scale: selvages, margins, the three readings, the way the nap runs. */
export function ClothPicture({ cloth, typing, placing = false, chosenFlaw, onChooseFlaw, onPlace }: Props) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const tape = useTape();
  const readings = [0, 1, 2].map((i) => typing[`width_readings.${i}`] ?? cloth.width_readings[i]?.mm);
  const known = readings.filter((r): r is number => r !== undefined && r > 0);
  // not measured since it was treated: drawn as it is about, and dashed
  const about = known.length === 0 ? cloth.width_now?.value : undefined;
  const widest = known.length ? Math.max(...known) : (about ?? 1400);
  const low = typing['margin_low'] ?? cloth.margin_low.mm;
  const high = typing['margin_high'] ?? cloth.margin_high.mm;
  const inHand = typing['in_hand'] ?? cloth.length_now?.value;
  const roomX = Math.max(50, width - PAD.left - PAD.right);
  const roomY = Math.max(50, height - PAD.top - PAD.bottom);
  const wanted = inHand && inHand > 0 ? inHand * 1.02 : widest * 1.6;
  const scale = Math.min(roomY / widest, inHand ? roomX / wanted : 10);
  const length = Math.min(inHand && inHand > 0 ? inHand : Infinity, roomX / scale);
  const x0 = PAD.left;
  const y1 = PAD.top + widest * scale;
  const right = x0 + length * scale;
  const id = 'cloth-picture';
  const svg = useRef<SVGSVGElement>(null);
  const [box, setBox] = useState<{ from: [number, number]; to: [number, number] }>();

  function at(event: PointerEvent): [number, number] {
    const turned = svg.current!.getScreenCTM()!.inverse();
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(turned);
    const clamp = (v: number, top: number) => Math.max(0, Math.min(top, v));
    return [clamp((p.x - x0) / scale, length), clamp((y1 - p.y) / scale, widest)];
  }
  function drawn(): Spot | undefined {
    if (!box) return undefined;
    const [x, y] = [Math.min(box.from[0], box.to[0]), Math.min(box.from[1], box.to[1])];
    const [w, h] = [Math.abs(box.to[0] - box.from[0]), Math.abs(box.to[1] - box.from[1])];
    if (Math.max(w, h) * scale >= 6) return { x, y, w: Math.max(w, 2), h: Math.max(h, 2) };
    return { x: Math.max(0, x - TOUCH / 2), y: Math.max(0, y - TOUCH / 2), w: TOUCH, h: TOUCH };
  }
  const stroke = drawn();
  return (
    <div className="picture" ref={ref}>
      {width > 0 && (
        <svg
          ref={svg}
          width={width}
          height={height}
          role="img"
          aria-label="The cloth to scale"
          className={placing ? 'placing' : undefined}
          data-scale={scale}
          onPointerDown={(e) => {
            if (!placing || e.button !== 0) return;
            e.currentTarget.setPointerCapture(e.pointerId);
            setBox({ from: at(e), to: at(e) });
          }}
          onPointerMove={(e) => box && setBox({ ...box, to: at(e) })}
          onPointerUp={() => {
            const round = (v: number) => Math.round(v);
            if (stroke && onPlace)
              onPlace({ x: round(stroke.x), y: round(stroke.y), w: round(stroke.w), h: round(stroke.h) });
            setBox(undefined);
          }}
          onPointerCancel={() => setBox(undefined)}
        >
          <defs>
            <ClothPattern id={id} cloth={cloth} scale={scale} x0={x0} y0={y1} left={cloth.bars_now} />
          </defs>
          {[`url(#${id})`, `url(#${id}-weave)`].map((fill) => (
            <path
              key={fill}
              d={`M${x0},${y1} L${x0},${PAD.top} L${right},${PAD.top} ${ragged(right, PAD.top, y1)} Z`}
              fill={fill}
              opacity={known.length || about ? 1 : 0.4}
            />
          ))}
          {[
            { y: PAD.top, h: high * scale, name: 'far selvage' },
            { y: y1 - low * scale, h: low * scale, name: 'near selvage' },
          ].map((s) => (
            <g key={s.name}>
              <rect x={x0} y={s.y} width={right - x0} height={Math.max(2, s.h)} className="margin" />
              <line
                x1={x0}
                x2={right}
                y1={s.name === 'far selvage' ? s.y : s.y + s.h}
                y2={s.name === 'far selvage' ? s.y : s.y + s.h}
                className="selvage"
              />
            </g>
          ))}
          <text x={x0 + 6} y={y1 + 18} className="label">
            near selvage{low > 0 ? `, ${cloth.margin_low.text} not used` : ''}
          </text>
          <Ruler scale={scale} length={length} unit={tape.mm} imperial={tape.imperial} x={x0} y={PAD.top - 6} />
          <Ruler scale={scale} length={widest} unit={tape.mm} imperial={tape.imperial} vertical x={x0 - 6} y={y1} />
          <text x={x0 - 6} y={PAD.top - 26} className="label" textAnchor="end">
            {tape.unit}
          </text>
          {cloth.shop_fold_now && (
            <g className="shop-fold">
              <line
                x1={x0}
                x2={right}
                y1={y1 - cloth.shop_fold_now.mm * scale}
                y2={y1 - cloth.shop_fold_now.mm * scale}
              />
              <text x={right - 8} y={y1 - cloth.shop_fold_now.mm * scale - 6} textAnchor="end">
                faded shop fold
              </text>
            </g>
          )}
          {cloth.flaws.map((flaw, i) => (
            <g
              key={i}
              className={`flaw ${i === chosenFlaw ? 'chosen' : ''} ${flaw.predicted ? 'predicted' : ''}`}
              onPointerDown={(e) => {
                if (placing) {
                  e.stopPropagation();
                  onChooseFlaw?.(i);
                }
              }}
            >
              <rect
                x={x0 + flaw.drawn[0]![0] * scale}
                y={y1 - flaw.drawn[1]![1] * scale}
                width={Math.max(4, (flaw.drawn[1]![0] - flaw.drawn[0]![0]) * scale)}
                height={Math.max(4, (flaw.drawn[1]![1] - flaw.drawn[0]![1]) * scale)}
              />
              <text
                x={x0 + flaw.drawn[1]![0] * scale + 5}
                y={y1 - ((flaw.drawn[0]![1] + flaw.drawn[1]![1]) / 2) * scale + 5}
              >
                {flaw.predicted && 'about here: '}
                {flaw.what}
              </text>
            </g>
          ))}
          {stroke && (
            <rect
              className="flaw-drawing"
              x={x0 + stroke.x * scale}
              y={y1 - (stroke.y + stroke.h) * scale}
              width={stroke.w * scale}
              height={stroke.h * scale}
            />
          )}
          {about && cloth.width_now && (
            <g className="reading predicted">
              <line x1={x0 + (right - x0) * 0.3} x2={x0 + (right - x0) * 0.3} y1={y1} y2={y1 - about * scale} />
              <g transform={`translate(${x0 + (right - x0) * 0.3} ${y1 - (about * scale) / 2})`}>
                <rect x={-64} y={-14} width={128} height={26} rx={4} />
                <text textAnchor="middle" y={5}>
                  about {cloth.width_now.text}
                </text>
              </g>
            </g>
          )}
          {!placing &&
            readings.map((value, i) => {
              const x = x0 + (right - x0) * (0.2 + 0.3 * i);
              if (!value) return null;
              return (
                <g key={i} className="reading">
                  <line x1={x} x2={x} y1={y1} y2={y1 - value * scale} />
                  <path
                    d={`M${x - 4},${y1 - 8} L${x},${y1} L${x + 4},${y1 - 8} M${x - 4},${y1 - value * scale + 8} L${x},${y1 - value * scale} L${x + 4},${y1 - value * scale + 8}`}
                  />
                  <g transform={`translate(${x} ${y1 - (value * scale) / 2})`}>
                    <rect x={-36} y={-14} width={72} height={26} rx={4} />
                    <text textAnchor="middle" y={5}>
                      {cloth.width_readings[i]?.mm === value ? cloth.width_readings[i].text : '…'}
                    </text>
                  </g>
                </g>
              );
            })}
          {cloth.one_way && (
            <g className="nap" transform={`translate(${x0 + (right - x0) * 0.35} ${PAD.top + 40})`}>
              <rect x={-8} y={-20} width={196} height={38} rx={4} />
              <path d="M0,0 H44 M34,-7 L44,0 L34,7" />
              <text x={56} y={5}>
                tops all this way
              </text>
            </g>
          )}
        </svg>
      )}
    </div>
  );
}
