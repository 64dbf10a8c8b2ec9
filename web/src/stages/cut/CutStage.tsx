import { useSearchParams } from 'react-router';
import { useProject } from '../../api/hooks';
import { Parts } from '../../app/Parts';
import { Stage } from '../../app/Stage';
import { Waits } from '../../app/Waits';
import { AgainPart } from './AgainPart';
import { BeforePart } from './BeforePart';
import { LeftPart } from './LeftPart';
import { OrderPart } from './OrderPart';
import { PapersPart } from './PapersPart';
import { TablePart } from './TablePart';
import { type CutProps, useCut } from './useCut';

const PARTS = [
  { value: 'before', label: 'Before cutting' },
  { value: 'order', label: 'Order' },
  { value: 'table', label: 'At the table' },
  { value: 'again', label: 'Went wrong' },
  { value: 'left', label: 'What is left' },
  { value: 'papers', label: 'On paper, at true size' },
] as const;
type Part = (typeof PARTS)[number]['value'];
const PAGES: Record<Part, (props: CutProps) => React.ReactNode> = {
  before: BeforePart,
  order: OrderPart,
  table: TablePart,
  again: AgainPart,
  left: LeftPart,
  papers: PapersPart,
};

/** Cut: from the checked lay to labelled pieces. */
export function CutStage() {
  const project = useProject().data!;
  const calls = useCut();
  const [search, setSearch] = useSearchParams();
  const found = calls.data;
  const usual: Part = !found?.begun ? 'before' : found.owed.length > 0 ? 'again' : found.done ? 'left' : 'table';
  const part = PARTS.find((p) => p.value === search.get('part'))?.value ?? usual;
  const choose = (value: Part) =>
    setSearch(
      (old) => {
        old.set('part', value);
        return old;
      },
      { replace: true },
    );
  const Page = PAGES[part];
  return (
    <Stage className={part === 'table' ? 'cut at-table' : 'cut'}>
      <Parts label="Parts of Cut" parts={PARTS} value={part} onChoose={choose}>
        <Waits project={project} stage="cut" />
        {calls.error ? (
          <p className="spoil">{calls.error.message}</p>
        ) : found ? (
          <Page found={found} calls={calls} />
        ) : (
          <p className="quiet">Fetching …</p>
        )}
      </Parts>
    </Stage>
  );
}
