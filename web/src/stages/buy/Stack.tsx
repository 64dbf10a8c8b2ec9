import type { Project } from '../../api/client';
import { useTape } from '../../api/hooks';
import { Worked } from '../../app/Working';
import { Ruler } from '../../draw/Ruler';
import { useSize } from '../../draw/useSize';

const TOP = 34;
const SIDE = 104;

/** The purchase as a stack of lengths along one tape: each line begins where the one before ends. */
export function Stack({ purchase, label }: { purchase: NonNullable<Project['purchase']>; label: string }) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const tape = useTape();
  const { lines } = purchase;
  const total = purchase.to_buy.value;
  const scale = Math.max(0.01, (width - SIDE - 10) / total);
  const row = Math.max(40, Math.min(84, (height - TOP - 20) / lines.length));
  const bar = Math.round(row * 0.6);
  const starts = lines.map((_, i) => lines.slice(0, i).reduce((sum, line) => sum + line.adds.mm, 0));
  return (
    <div ref={ref} className="stack">
      {width > 0 && (
        <>
          <svg width={width} height={TOP + lines.length * row + 12} role="img" aria-label={label}>
            <Ruler scale={scale} length={total} unit={tape.mm} imperial={tape.imperial} x={4} y={TOP - 6} />
            {lines.map((line, i) => {
              const x = 4 + starts[i]! * scale;
              const w = line.adds.mm * scale;
              const y = TOP + i * row + 6;
              const inside = i === 0 && w > 240;
              const left = x > 250;
              return (
                <g key={line.key} className={`stack-line stack-${line.key}`}>
                  <rect x={x} y={y} width={Math.max(1.5, w)} height={bar} />
                  {i > 0 && <line x1={x} x2={x} y1={y - row + bar} y2={y} />}
                  <text
                    x={inside ? x + 12 : left ? x - 12 : x + w + 10}
                    y={y + bar / 2 + 5}
                    textAnchor={inside || !left ? 'start' : 'end'}
                    className={inside ? 'on-dark' : undefined}
                  >
                    {line.name}
                  </text>
                </g>
              );
            })}
            <line
              className="stack-end"
              x1={4 + total * scale}
              x2={4 + total * scale}
              y1={TOP - 6}
              y2={TOP + lines.length * row}
            />
          </svg>
          {lines.map((line, i) => (
            <span
              key={line.key}
              className="stack-adds"
              style={{ top: TOP + i * row + 6, left: 4 + total * scale + 12, height: bar }}
            >
              <Worked figure={line.figure} label={line.name}>
                {i > 0 && '+ '}
                {line.adds.text}
              </Worked>
            </span>
          ))}
        </>
      )}
    </div>
  );
}
