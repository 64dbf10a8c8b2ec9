import type { Cloth } from '../../api/client';
import { Sections } from '../../app/Sections';

export type State = Cloth['states'][number];

/** Of a cloth's states the one whose measures are shown; nothing to choose while it is as bought. */
export function States({ cloth, value, onChoose }: { cloth: Cloth; value: number; onChoose: (id: number) => void }) {
  if (cloth.states.length < 2) return null;
  const parts = cloth.states.map((s) => ({ value: String(s.id), label: s.name }));
  return <Sections label="Measured when" parts={parts} value={String(value)} onChoose={(id) => onChoose(Number(id))} />;
}
