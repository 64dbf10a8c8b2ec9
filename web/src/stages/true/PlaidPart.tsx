import { Button } from 'antd';
import { useSize } from '../../draw/useSize';
import { EntryChoice, EntryLength } from '../../fields/Entry';
import { useHeld } from '../../fields/useHeld';
import type { PartProps } from './useTrue';

type Row = { place: number | string; off: number | string; side: 'out' | 'in' };

/** Are the bars square: an L-square at several of them, and which to shift. */
export function PlaidPart({ found, calls, project }: PartProps) {
  const { plaid } = found;
  const rows: Row[] = plaid.bars.map((b) => ({ place: b.place.mm, off: b.off.mm, side: b.signed < 0 ? 'in' : 'out' }));
  const set = useHeld(rows, (bars) => calls.change({ bars }));
  const change = (i: number, given: Partial<Row>) =>
    set((held) => held.map((r, n) => (n === i ? { ...r, ...given } : r)));
  return (
    <div className="buy-two">
      <div className="picture-side">
        <h1 className={plaid.square ? 'good' : undefined}>{plaid.headline}</h1>
        <Bars plaid={plaid} ground={project.cloth.ground} />
        <p className="quiet">
          One arm of the square on the near selvage (below), the other across: how far off is each bar at the far
          selvage? Slants are drawn larger than they are.
        </p>
      </div>
      <aside className="facts">
        <h2>Bars</h2>
        {plaid.bars.map((b, i) => (
          <div key={i} className="flaw-form">
            <div className="two">
              <EntryLength
                label={`Bar ${i + 1}, from the end`}
                path={`bars.${i}.place`}
                value={b.place.text}
                onSave={(place) => change(i, { place })}
              />
              <EntryLength
                label="off at the far selvage"
                path={`bars.${i}.off`}
                value={b.off.text}
                onSave={(off) => change(i, { off })}
              />
            </div>
            <EntryChoice
              label="It runs"
              value={b.signed < 0 ? 'in' : 'out'}
              options={[
                { value: 'out', label: 'out, towards the tested end' },
                { value: 'in', label: 'in, away from it' },
              ]}
              onSave={(v) => change(i, { side: v as 'out' })}
            />
            <p className={b.square ? 'good' : 'look'}>
              {b.told}{' '}
              <Button
                type="text"
                size="small"
                aria-label={`Remove bar ${i + 1}`}
                onClick={() => void set((held) => held.filter((_, n) => n !== i))}
              >
                remove
              </Button>
            </p>
          </div>
        ))}
        <Button
          type={plaid.bars.length ? 'default' : 'primary'}
          onClick={() => void set((held) => [...held, { place: plaid.next_place.mm, off: 0, side: 'out' }])}
        >
          Another bar
        </Button>
        <p className="quiet">Printed bars need not follow the threads: they are not shifted, see the fold test.</p>
      </aside>
    </div>
  );
}

function Bars({ plaid, ground }: { plaid: PartProps['found']['plaid']; ground: string }) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const long = Math.max(600, ...plaid.bars.map((b) => b.place.mm)) * 1.15;
  const worst = Math.max(4, ...plaid.bars.map((b) => b.off.mm));
  const x = (mm: number) => 40 + (mm / long) * (width - 80);
  return (
    <div className="picture" ref={ref}>
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label={plaid.headline}>
          <rect x={16} y={24} width={width - 40} height={height - 60} fill={ground} />
          <line x1={16} x2={width - 24} y1={24} y2={24} className="selvage" />
          <line x1={16} x2={width - 24} y1={height - 36} y2={height - 36} className="selvage" />
          {plaid.bars.map((b, i) => (
            <g key={i} className={b.square ? 'bar-read' : 'bar-read off'}>
              <line x1={x(b.place.mm)} x2={x(b.place.mm)} y1={height - 36} y2={24} className="as-drawn" />
              <line
                x1={x(b.place.mm)}
                x2={x(b.place.mm) - (b.signed / worst) * 46}
                y1={height - 36}
                y2={24}
                className="bar"
              />
              <text x={x(b.place.mm)} y={height - 14} textAnchor="middle">
                {i + 1}
              </text>
              {b.off.mm > 0 && (
                <text x={x(b.place.mm) - (b.signed / worst) * 46} y={18} textAnchor="middle">
                  {b.off.text}
                </text>
              )}
            </g>
          ))}
        </svg>
      )}
    </div>
  );
}
