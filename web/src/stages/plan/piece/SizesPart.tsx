import { useAct } from '../../../app/useAct';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { api, type Draft, type Piece, saved } from '../../../api/client';
import { useChanges } from '../../../api/hooks';
import { Cell } from './Tables';
import { type Field, field, sent } from './form';

/** The sizes of a piece: from each to the next, how far a point goes. */
export function SizesPart({ piece, draft }: { piece: Piece; draft: Draft }) {
  const changes = useChanges();
  const [sizes, setSizes] = useState(draft.sizes.join(' '));
  const [base, setBase] = useState(draft.base);
  const [steps, setSteps] = useState<Record<number, { along: Field; across: Field }>>(
    Object.fromEntries(draft.grades.map((g) => [g.key, { along: field(g.along), across: field(g.across) }])),
  );
  const [kept, setKept] = useState(false);
  const names = sizes.split(/[\s,]+/).filter(Boolean);
  const uneven = draft.sizes.length > 1 && draft.grades.length === 0;
  const { run: grade, refusal: fault } = useAct(async (all: string[]) => {
    const grades = draft.points.flatMap((p) => {
      const step = steps[p.key];
      return step && (step.along.text.trim() || step.across.text.trim())
        ? [
            {
              key: p.key,
              along: step.along.text.trim() ? sent(step.along) : 0,
              across: step.across.text.trim() ? sent(step.across) : 0,
            },
          ]
        : [];
    });
    changes.keep(
      await saved(
        api.PUT('/api/pieces/{piece_id}/sizes', {
          params: { path: { piece_id: piece.id }, query: changes.query },
          body: { sizes: all, base: all.length ? base.trim() : '', grades },
        }),
      ),
    );
    setKept(true);
  });
  const set = (key: number, part: Partial<{ along: Field; across: Field }>) => {
    setKept(false);
    setSteps((old) => ({ ...old, [key]: { ...(old[key] ?? { along: { text: '' }, across: { text: '' } }), ...part } }));
  };
  return (
    <details className="piece-part">
      <summary>Sizes ({draft.sizes.length > 0 ? draft.sizes.join(', ') : 'one'})</summary>
      {uneven && (
        <p className="quiet">
          Its sizes came from a drawing, each with an outline of its own. Steps typed here replace them.
        </p>
      )}
      <div className="two">
        <div className="entry">
          <label htmlFor="sizes">Its sizes, smallest first</label>
          <Input
            id="sizes"
            data-go
            value={sizes}
            placeholder="36 38 40 42"
            onChange={(e) => {
              setKept(false);
              setSizes(e.target.value);
            }}
          />
        </div>
        <div className="entry">
          <label htmlFor="base-size">Drawn in size</label>
          <Input
            id="base-size"
            data-go
            value={base}
            placeholder="38"
            onChange={(e) => {
              setKept(false);
              setBase(e.target.value);
            }}
          />
        </div>
      </div>
      {names.length > 1 && (
        <table className="station-table">
          <thead>
            <tr>
              <th>point</th>
              <th>up, a size</th>
              <th>to the left, a size</th>
            </tr>
          </thead>
          <tbody>
            {draft.points.map((p, i) => (
              <tr key={p.key}>
                <th scope="row">{i + 1}</th>
                <td>
                  <Cell
                    label={`point ${i + 1}, up a size`}
                    value={steps[p.key]?.along ?? { text: '' }}
                    placeholder="0"
                    onType={(along) => set(p.key, { along })}
                  />
                </td>
                <td>
                  <Cell
                    label={`point ${i + 1}, left a size`}
                    value={steps[p.key]?.across ?? { text: '' }}
                    placeholder="0"
                    onType={(across) => set(p.key, { across })}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {fault && (
        <p className="spoil" role="alert">
          {fault.message}
        </p>
      )}
      {kept && (
        <p className="quiet" role="status">
          The sizes are kept.
        </p>
      )}
      <p className="commands">
        <Button onClick={() => void grade(names)}>Keep the sizes</Button>
        {draft.sizes.length > 0 && <Button onClick={() => void grade([])}>One size only</Button>}
      </p>
    </details>
  );
}
