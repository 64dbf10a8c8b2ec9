import { useRef } from 'react';
import type { Row } from '../../api/client';
import { EntryLength } from '../../fields/Entry';
import { useHeld } from '../../fields/useHeld';

type Value = number | string | null;
const LEAST_ROWS = 3;

/** Readings of one direction: before, then after each wash, each kept by itself. */
export function Readings({
  direction,
  rows,
  washes,
  onSave,
}: {
  direction: 'warp' | 'weft';
  rows: Row[];
  washes: number;
  onSave: (rows: Value[][]) => Promise<unknown>;
}) {
  const table = useRef<HTMLTableElement>(null);
  const lines = Math.max(LEAST_ROWS, rows.length + (rows.length >= LEAST_ROWS ? 1 : 0));
  const columns = washes + 1;
  const change = useHeld<Value[][]>(
    rows.map((r) => r.values.map((v) => v?.mm ?? null)),
    onSave,
  );

  function keep(row: number, column: number) {
    return async (text: string) => {
      let at = row;
      try {
        await change((held) => {
          const next = held.map((r) => [...r]);
          const line = next[row];
          at = Math.min(row, held.length);
          if (!line) {
            if (!text.trim()) return held;
            if (column > 0)
              throw Object.assign(new Error('Give the distance before washing first.'), { about: () => undefined });
            next.push([text]);
          } else if (column === 0 && !text.trim()) {
            next.splice(row, 1);
          } else {
            while (line.length <= column) line.push(null);
            line[column] = text.trim() ? text : null;
          }
          return next;
        });
      } catch (fault) {
        const refusal = fault as { fields?: { path: string; message: string }[] };
        for (const f of refusal.fields ?? []) f.path = f.path.replace(`${direction}.${at}.`, `${direction}.${row}.`);
        throw fault;
      }
    };
  }
  /** Enter goes down the column, as one measures; from its foot to the top of the next. */
  function down(row: number, column: number) {
    return () => {
      const fields = [...(table.current?.querySelectorAll('input') ?? [])];
      // marked a moment ago, its rows may not be there yet: it goes on all the same
      const here = row + 1 < lines && (column === 0 || rows.length === 0 || row + 1 < rows.length);
      const next = here ? (row + 1) * columns + column : column + 1 < columns ? column + 1 : undefined;
      if (next !== undefined) fields[next]?.focus();
    };
  }
  return (
    <table className="readings" ref={table} data-main>
      <caption>{direction === 'warp' ? 'Warp, along the selvage' : 'Weft, across'}</caption>
      <thead>
        <tr>
          <th scope="col">before</th>
          {Array.from({ length: washes }, (_, i) => (
            <th key={i} scope="col">
              {washes === 1 ? 'after' : `wash ${i + 1}`}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {Array.from({ length: lines }, (_, row) => (
          <tr key={row}>
            {Array.from({ length: columns }, (_, column) => {
              const when = column === 0 ? 'before' : washes === 1 ? 'after' : `after wash ${column}`;
              return (
                <td key={column}>
                  <EntryLength
                    bare
                    label={`${direction} reading ${row + 1}, ${when}`}
                    path={`${direction}.${row}.${column}`}
                    placeholder={`reading ${row + 1}`}
                    value={rows[row]?.values[column]?.text ?? ''}
                    onSave={keep(row, column)}
                    onEnter={down(row, column)}
                  />
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
