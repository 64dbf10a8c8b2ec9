import { useAct } from '../../app/useAct';
import { Button } from 'antd';
import { DoButton } from '../../app/DoButton';
import type { Project, Runs } from '../../api/client';
import { useChanges } from '../../api/hooks';
import { DraftScope, EntryLength, EntryText } from '../../fields/Entry';
import { useHeld } from '../../fields/useHeld';

/** A trim is bought by the metre: as long as the edges it goes on. */
export function TrimPart({ project }: { project: Project }) {
  const changes = useChanges();
  const use = project.uses.find((u) => u.id === project.use_id)!;
  const held: Runs = use.runs.map((r) => ({ what: r.what, length: r.length.mm, times: r.times }));
  const keep = useHeld(held, (runs) => changes.runs(use.id, runs));
  const change = (i: number, part: Partial<Runs[number]>) =>
    keep((now) => now.map((r, n) => (n === i ? { ...r, ...part } : r)));
  const { run: add, error } = useAct(async () => {
    await keep((now) => [...now, { what: `edge ${now.length + 1}`, length: 500, times: 1 }]);
  });
  return (
    <section aria-label="Edges it goes on" className="trim-runs">
      <h2>The edges {use.name} goes on</h2>
      {use.runs.map((r, i) => (
        <DraftScope key={`${i}-${use.runs.length}`} value={`run-${use.id}-${i}`}>
          <div className="run">
            <EntryText label="Edge" path={`runs.${i}.what`} value={r.what} onSave={(what) => change(i, { what })} />
            <EntryLength
              label="its length"
              path={`runs.${i}.length`}
              value={r.length.text}
              onSave={(length) => change(i, { length })}
            />
            <EntryText
              label="times"
              path={`runs.${i}.times`}
              value={String(r.times)}
              onSave={(v) => change(i, { times: /^\d+$/.test(v.trim()) ? Number(v) : (v as unknown as number) })}
            />
            <Button
              type="text"
              aria-label={`Remove ${r.what}`}
              onClick={() => void keep((now) => now.filter((_, n) => n !== i))}
            >
              remove
            </Button>
          </div>
        </DraftScope>
      ))}
      <p className="commands">
        <DoButton onDo={add}>Another edge</DoButton>
      </p>
      {error && (
        <p className="spoil" role="alert">
          {error}
        </p>
      )}
    </section>
  );
}
