import { type ReactNode, useCallback, useState } from 'react';
import type { Cloth, ClothChange } from '../api/client';
import { Sections } from '../app/Sections';
import { DraftScope } from '../fields/Entry';
import { BarsPicture } from '../draw/BarsPicture';
import { BarsPart } from '../stages/cloth/BarsPart';
import { ClothPicture } from '../draw/ClothPicture';
import { FacePart } from '../stages/cloth/FacePart';
import { FlawsPart } from '../stages/cloth/FlawsPart';
import { HandPart } from '../stages/cloth/HandPart';
import { KeptPart } from '../stages/cloth/KeptPart';
import { MeasuresPart } from '../stages/cloth/MeasuresPart';
import { Stage } from '../app/Stage';

export type PartProps = { cloth: Cloth; onChange: (body: ClothChange) => Promise<unknown> };

const PARTS = [
  { value: 'measures', label: 'Measures' },
  { value: 'face', label: 'Face' },
  { value: 'bars', label: 'Bars' },
  { value: 'flaws', label: 'Flaws' },
  { value: 'hand', label: 'By hand' },
  { value: 'kept', label: 'Kept' },
] as const;
type Part = (typeof PARTS)[number]['value'];

type EditorProps = PartProps & { headline: ReactNode; said?: ReactNode; commands?: ReactNode; onNews: () => void };

/** Everything that is known of one cloth, beside its picture. */
export function ClothEditor(props: EditorProps) {
  const scope = `cloth-${props.cloth.id}`;
  return (
    <DraftScope value={scope}>
      <Editor key={scope} {...props} />
    </DraftScope>
  );
}

function Editor({ cloth, onChange, onNews, headline, said, commands }: EditorProps) {
  const [part, setPart] = useState<Part>('measures');
  const [typing, setTyping] = useState<Record<string, number | undefined>>({});
  const [flaw, setFlaw] = useState<number>();
  const onTyping = useCallback(
    (key: string) => (mm: number | undefined) => setTyping((old) => (old[key] === mm ? old : { ...old, [key]: mm })),
    [],
  );
  const shared = { cloth, onChange };
  return (
    <Stage className="with-facts">
      <div className="picture-side">
        <h1>{headline}</h1>
        {commands && <p className="commands">{commands}</p>}
        {said && <p className="quiet">{said}</p>}
        {cloth.width_note && <p className="look">{cloth.width_note}</p>}
        {part === 'bars' && (cloth.along.repeat || cloth.across.repeat) ? (
          <BarsPicture cloth={cloth} />
        ) : (
          <ClothPicture
            cloth={cloth}
            typing={typing}
            placing={part === 'flaws'}
            chosenFlaw={flaw}
            onChooseFlaw={setFlaw}
            onPlace={(spot) => {
              void onChange({ flaws: [...cloth.flaws.map(bare), { ...spot, what: 'stain' }] });
              setFlaw(cloth.flaws.length);
            }}
          />
        )}
      </div>
      <aside className="facts cloth-facts">
        <Sections label="Facts of the cloth" parts={PARTS} value={part} onChoose={setPart} />
        {part === 'measures' && <MeasuresPart {...shared} onTyping={onTyping} />}
        {part === 'face' && <FacePart {...shared} />}
        {part === 'bars' && <BarsPart {...shared} />}
        {part === 'flaws' && <FlawsPart {...shared} chosen={flaw} onChoose={setFlaw} />}
        {part === 'hand' && <HandPart {...shared} />}
        {part === 'kept' && <KeptPart {...shared} onNews={onNews} />}
      </aside>
    </Stage>
  );
}

/** A flaw as it is sent back: without what is only for reading. */
export const bare = ({ x, y, w, h, what }: Cloth['flaws'][number]) => ({ x: x.mm, y: y.mm, w: w.mm, h: h.mm, what });
