import { type RefObject, useEffect, useState } from 'react';
import type { Drawing } from '../api/client';
import { points } from '../draw/outline';

/** The whole cloth small, with the part that is seen; touched, that part goes there. */
export function MapOfCloth({
  drawing,
  low,
  high,
  frame,
  scale,
  pad,
  shown,
}: {
  drawing: Drawing;
  low: number;
  high: number;
  frame: RefObject<HTMLDivElement | null>;
  scale: number;
  pad: { left: number; top: number };
  shown: number;
}) {
  const [seen, setSeen] = useState({ x: 0, y: 0, w: 1, h: 1 });
  useEffect(() => {
    const box = frame.current;
    if (!box) return undefined;
    const look = () =>
      setSeen({
        x: (box.scrollLeft - pad.left) / scale,
        y: (box.scrollTop - pad.top) / scale,
        w: box.clientWidth / scale,
        h: box.clientHeight / scale,
      });
    look();
    box.addEventListener('scroll', look, { passive: true });
    const watch = new ResizeObserver(look);
    watch.observe(box);
    return () => {
      box.removeEventListener('scroll', look);
      watch.disconnect();
    };
  }, [frame, scale, pad]);
  const k = Math.min(260 / shown, 70 / (high - low));
  return (
    <svg
      className="map-of-cloth"
      width={shown * k}
      height={(high - low) * k}
      role="img"
      aria-label="The whole cloth; the frame is what is seen"
      onPointerDown={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        frame.current?.scrollTo({
          left: ((event.clientX - box.left) / k - seen.w / 2) * scale + pad.left,
          top: ((event.clientY - box.top) / k - seen.h / 2) * scale + pad.top,
        });
      }}
    >
      <rect width={shown * k} height={(high - low) * k} className="way-cloth" />
      {drawing.shapes.map((shape) => (
        <polygon key={shape.key} points={points(shape.outline, k, 0, high * k)} />
      ))}
      <rect className="seen" x={seen.x * k} y={seen.y * k} width={seen.w * k} height={seen.h * k} />
    </svg>
  );
}
