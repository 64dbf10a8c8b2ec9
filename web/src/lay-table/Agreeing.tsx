import type { Lay, Shape } from '../api/client';
import { useAgreeing } from './useAgreeing';

/** So many of the nearest places are drawn as the piece itself, the others as crosses. */
const GHOSTS = 4;

/** Where the bars of the chosen piece agree: a lattice of crosses, and the piece faintly where it could go next. */
export function Agreeing({
  lay,
  shape,
  at,
}: {
  lay: Lay;
  shape: Shape;
  at: (x: number, y: number) => [number, number];
}) {
  const found = useAgreeing(lay, shape);
  if (!found || found.places.length === 0) return null;
  const moved = found.places
    .map((p): [number, number] => [p[0]! - shape.origin[0]!, p[1]! - shape.origin[1]!])
    .filter(([x, y]) => Math.hypot(x, y) > 0.5);
  return (
    <g className="agreeing" aria-hidden="true">
      {moved.slice(0, GHOSTS).map(([dx, dy]) => (
        <polygon
          key={`${dx} ${dy}`}
          points={shape.outline.map((p) => at(p[0]! + dx, p[1]! + dy).join(',')).join(' ')}
        />
      ))}
      {moved.map(([dx, dy]) => {
        const [x, y] = at(shape.tail[0]! + dx, shape.tail[1]! + dy);
        return <path key={`${dx} ${dy}`} d={`M${x - 4},${y} h8 M${x},${y - 4} v8`} />;
      })}
    </g>
  );
}
