import { useState } from 'react';
import { Worked } from '../../app/Working';
import { bounds } from '../../draw/outline';
import { useSize } from '../../draw/useSize';
import type { Twist } from '../../api/client';
import { Explained } from '../../app/Words';
import type { PartProps } from './useTrue';

const CLASS = { harmless: 'good', visible: 'look', 'will not hang': 'spoil' } as const;

/** Does it matter: each piece as it would hang, cut as the cloth is now. */
export function MatterPart({ found, project }: PartProps) {
  const [chosen, setChosen] = useState<number>();
  const sheet = (t: Twist) => {
    const b = bounds(t.outline as [number, number][]);
    return (b.x1 - b.x0) * (b.y1 - b.y0);
  };
  const twist =
    found.twists.find((t) => t.piece_id === chosen) ?? found.twists.toSorted((a, b) => sheet(b) - sheet(a))[0];
  const worst = found.twists[0];
  return (
    <div className="buy-two">
      <div className="picture-side">
        <h1>{found.matters}</h1>
        {!worst && (
          <p className="quiet">
            {found.basis
              ? 'Add the pattern pieces first.'
              : 'Read the fold test first: the twist follows from its slant.'}
          </p>
        )}
        {twist && <Hanging twist={twist} ground={project.cloth.ground} />}
        {worst && (
          <p className="quiet">
            If cut as it is, by {found.basis}
            {found.angle && (
              <>
                : slant{' '}
                <Worked figure={found.angle} label="angle">
                  {found.angle.text}
                </Worked>
              </>
            )}
            . Long dashes: as it was drawn. Solid: as it hangs.
          </p>
        )}
      </div>
      <aside className="facts">
        <h2>Each piece</h2>
        <ul className="plain-list twists">
          {found.twists.map((t) => (
            <li key={t.piece_id}>
              <button type="button" aria-pressed={t === twist} onClick={() => setChosen(t.piece_id)}>
                {t.piece}
              </button>
              <span className={CLASS[t.verdict]}>{t.verdict}</span>
              <small>
                twist{' '}
                <Worked figure={t.twist} label={`twist of ${t.piece}`}>
                  {t.twist.text}
                </Worked>
                , a bar climbs{' '}
                <Worked figure={t.drift} label={`drift across ${t.piece}`}>
                  {t.drift.text}
                </Worked>
                {t.drift_told && `: ${t.drift_told}`}
              </small>
            </li>
          ))}
        </ul>
        <p className="quiet">
          <Explained text={found.twist_limits} />
        </p>
      </aside>
    </div>
  );
}

/** One piece upright, top above: as drawn, and as it would hang. */
function Hanging({ twist, ground }: { twist: Twist; ground: string }) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const all = [...twist.outline, ...twist.hangs];
  const b = bounds(all as [number, number][]);
  const scale = Math.min((width - 220) / Math.max(1, b.y1 - b.y0), (height - 60) / Math.max(1, b.x1 - b.x0));
  const x = (y: number) => width / 2 + ((b.y0 + b.y1) / 2 - y) * scale;
  const y = (along: number) => 24 + (b.x1 - along) * scale;
  const path = (ring: number[][]) =>
    ring.map(([along, across]) => `${x(across!).toFixed(1)},${y(along!).toFixed(1)}`).join(' ');
  const low = Math.min(...twist.outline.map(([along]) => along!));
  const middle = (ring: number[][]) => {
    const near = ring.filter(([along]) => along! < low + 3).map(([, across]) => across!);
    return near.length ? (Math.min(...near) + Math.max(...near)) / 2 : 0;
  };
  const [from, to] = [middle(twist.outline), middle(twist.hangs)];
  return (
    <div className="picture" ref={ref}>
      {width > 0 && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={`${twist.piece} as it hangs: ${twist.twist.text} of twist at the hem`}
        >
          <polygon points={path(twist.hangs)} fill={ground} className="hangs" />
          <polygon points={path(twist.outline)} className="as-drawn" />
          <line x1={x(from)} y1={y(b.x1)} x2={x(from)} y2={y(low) + 8} className="plumb" />
          {Math.abs(to - from) * scale > 2 && (
            <g className="reading">
              <path
                d={`M${x(from)},${y(low) + 14} H${x(to)} M${x(from)},${y(low) + 9} v10 M${x(to)},${y(low) + 9} v10`}
              />
              <rect x={Math.min(x(from), x(to)) - 86} y={y(low) + 3} width={76} height={23} rx={4} />
              <text x={Math.min(x(from), x(to)) - 48} y={y(low) + 20} textAnchor="middle">
                {twist.twist.text}
              </text>
            </g>
          )}
        </svg>
      )}
    </div>
  );
}
