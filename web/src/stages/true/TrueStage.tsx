import { useSearchParams } from 'react-router';
import { useProject } from '../../api/hooks';
import { Parts } from '../../app/Parts';
import { Waits } from '../../app/Waits';
import { CheckPart } from './CheckPart';
import { EdgePart } from './EdgePart';
import { FoldPart } from './FoldPart';
import { MatterPart } from './MatterPart';
import { PlaidPart } from './PlaidPart';
import { TestPart } from './TestPart';
import { type PartProps, useTrue } from './useTrue';
import { Stage } from '../../app/Stage';

const PARTS = [
  { value: 'test', label: 'Fold test' },
  { value: 'edge', label: 'First edge' },
  { value: 'matter', label: 'Does it matter?' },
  { value: 'fold', label: 'The fold' },
  { value: 'pieces', label: 'Pinned pieces' },
  { value: 'plaid', label: 'Bars square?' },
] as const;
type Part = (typeof PARTS)[number]['value'];
const PAGES: Record<Part, (props: PartProps) => React.ReactNode> = {
  test: TestPart,
  edge: EdgePart,
  matter: MatterPart,
  fold: FoldPart,
  pieces: CheckPart,
  plaid: PlaidPart,
};

/** True: is it on grain, what to do, and does it matter. */
export function TrueStage() {
  const project = useProject().data!;
  const calls = useTrue();
  const [search, setSearch] = useSearchParams();
  const part = PARTS.find((p) => p.value === search.get('part'))?.value ?? 'test';
  const choose = (value: Part) => setSearch(value === 'test' ? {} : { part: value }, { replace: true });
  const Page = PAGES[part];
  return (
    <Stage className="true">
      <Parts label="Parts of True" parts={PARTS} value={part} onChoose={choose}>
        <Waits project={project} stage="true" />
        {calls.error ? (
          <p className="spoil">{calls.error.message}</p>
        ) : calls.data ? (
          <Page found={calls.data} calls={calls} project={project} />
        ) : (
          <p className="quiet">Fetching …</p>
        )}
      </Parts>
    </Stage>
  );
}
