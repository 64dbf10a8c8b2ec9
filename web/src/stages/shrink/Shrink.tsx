import { usePart, useProject, useShrink } from '../../api/hooks';
import { Parts } from '../../app/Parts';
import { DraftScope } from '../../fields/Entry';
import { SetPart } from './SetPart';
import { SwatchPart } from './SwatchPart';
import { TreatPart } from './TreatPart';
import { WashdayPart } from '../../washday/WashdayPart';
import { Stage } from '../../app/Stage';

const PARTS = [
  { value: 'swatch', label: 'Swatch' },
  { value: 'treat', label: 'How to wash it' },
  { value: 'set', label: 'Cloths together' },
  { value: 'day', label: 'Washing day' },
] as const;

/** Shrink: swatches, treatment, the cloths that go together, and the day they are washed. */
export function Shrink() {
  const project = useProject().data!;
  const [part, choose] = usePart(PARTS);
  const shrink = useShrink().data;
  return (
    <Stage className="shrink">
      <Parts label="Parts of Shrink" parts={PARTS} value={part} onChoose={choose}>
        {part === 'set' ? (
          <SetPart project={project} />
        ) : part === 'day' ? (
          <WashdayPart />
        ) : !shrink ? (
          <p className="quiet">Fetching …</p>
        ) : (
          <DraftScope value={`cloth-${shrink.cloth_id}`}>
            {part === 'swatch' ? (
              <SwatchPart key={shrink.use_id} project={project} shrink={shrink} />
            ) : (
              <TreatPart key={shrink.use_id} shrink={shrink} />
            )}
          </DraftScope>
        )}
      </Parts>
    </Stage>
  );
}
