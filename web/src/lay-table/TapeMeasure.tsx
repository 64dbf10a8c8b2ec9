import { type PointerEvent, useEffect, useState } from 'react';
import { api, unwrap } from '../api/client';

type Spot = [number, number];

/** A tape between any two places that are touched. */
export function TapeMeasure({
  onCloth,
  at,
  offset,
  area,
}: {
  onCloth: (event: { clientX: number; clientY: number }) => Spot;
  at: (x: number, y: number) => Spot;
  offset: number;
  area: Spot;
}) {
  const [ends, setEnds] = useState<Spot[]>([]);
  const [text, setText] = useState('');
  const [from, to] = ends;
  const long = from && to ? Math.hypot(to[0] - from[0], to[1] - from[1]) : 0;
  useEffect(() => {
    if (long <= 0) return undefined;
    let gone = false;
    void unwrap(api.GET('/api/lengths/write', { params: { query: { mm: long } } })).then(
      (found) => gone || setText(found.text),
    );
    return () => {
      gone = true;
    };
  }, [long]);
  function touch(event: PointerEvent) {
    event.stopPropagation();
    const spot = onCloth(event);
    setText('');
    setEnds((old) => (old.length === 1 ? [old[0]!, spot] : [spot]));
  }
  const [a, b] = [from, to].map((spot) => spot && at(spot[0] - offset, spot[1]));
  return (
    <g className="tape-measure">
      <rect width={area[0]} height={area[1]} onPointerDown={touch} />
      {a && <circle cx={a[0]} cy={a[1]} r={4} />}
      {a && b && (
        <>
          <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} />
          <circle cx={b[0]} cy={b[1]} r={4} />
          <text x={(a[0] + b[0]) / 2} y={(a[1] + b[1]) / 2 - 8} textAnchor="middle" role="status">
            {text}
          </text>
        </>
      )}
    </g>
  );
}
