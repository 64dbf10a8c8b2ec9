import { Button, Popconfirm } from 'antd';
import type { Gesture, Lay } from '../../api/client';
import { points } from '../../draw/outline';
import { EntryText } from '../../fields/Entry';

/** Every lay there is, each small, at one scale: those that were found and the maker's own. */
export function Ways({
  lay,
  onChoose,
  onDo,
}: {
  lay: Lay;
  onChoose: (id: number) => void;
  onDo: (gesture: Gesture, of?: number) => Promise<boolean>;
}) {
  // all at one scale, the longest and the widest whole
  const longest = Math.max(...lay.alternatives.map((a) => a.long));
  const widest = Math.max(...lay.alternatives.map((a) => a.high - a.low));
  const k = Math.min(110 / longest, 78 / widest);
  return (
    <section aria-label="Other ways to lay it">
      <h2>{lay.alternatives.length > 1 ? 'Ways to lay it' : 'The way it is laid'}</h2>
      {lay.alternatives.map((way) => (
        <div key={way.lay_id} className="way-line">
          <button
            type="button"
            className={way.chosen ? 'way chosen' : 'way'}
            aria-pressed={way.chosen}
            onClick={() => onChoose(way.lay_id)}
          >
            <svg width={112} height={(way.high - way.low) * k + 2} aria-hidden="true">
              {way.stretches.map((s, i) => (
                <g key={i}>
                  <rect
                    x={0.5 + s.start * k}
                    y={0.5 + (way.high - s.high) * k}
                    width={(s.end - s.start) * k}
                    height={(s.high - s.low) * k}
                    className="way-cloth"
                  />
                  {s.lines
                    .filter((line) => line.kind === 'fold' || line.kind === 'lower edge')
                    .map((line, n) => (
                      <line
                        key={n}
                        className={line.kind === 'fold' ? 'way-fold' : 'way-edge'}
                        x1={0.5 + line.start[0] * k}
                        x2={0.5 + line.end[0] * k}
                        y1={0.5 + (way.high - line.start[1]) * k}
                        y2={0.5 + (way.high - line.end[1]) * k}
                      />
                    ))}
                </g>
              ))}
              {way.outlines.map((o, i) => (
                <polygon key={i} points={points(o, k, 0.5, 0.5 + way.high * k)} />
              ))}
            </svg>
            <span>
              <b>{way.label}</b>
              <small>
                {way.cuts} to pin and cut
                {way.unfoldings > 0 && `, folded anew ${way.unfoldings === 1 ? 'once' : `${way.unfoldings} times`}`}
              </small>
            </span>
            <strong>{way.length.text}</strong>
          </button>
          {way.own && way.chosen && (
            <EntryText
              label="This lay is called"
              path="name"
              value={way.label}
              onSave={async (name) => {
                if (!(await onDo({ do: 'rename', name }))) throw new Error('Another name, please.');
              }}
            />
          )}
          {way.own && (
            <Popconfirm
              title={`Put “${way.label}” away?`}
              okText="Put away"
              cancelText="Keep"
              onConfirm={() => void onDo({ do: 'away' }, way.lay_id)}
            >
              <Button size="small" type="link" aria-label={`Put ${way.label} away`}>
                put away
              </Button>
            </Popconfirm>
          )}
        </div>
      ))}
      {lay.refused.map((r) => (
        <p key={r.fold} className="quiet">
          Not {r.label}: {r.why}
        </p>
      ))}
    </section>
  );
}
