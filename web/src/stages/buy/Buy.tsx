import { usePart, useProject } from '../../api/hooks';
import { Parts } from '../../app/Parts';
import { Ask } from './Ask';
import { EnvelopePart } from './EnvelopePart';
import { ListPart } from './ListPart';
import { OffersPart } from './OffersPart';
import { StripsPart } from './StripsPart';
import { TogetherPart } from './TogetherPart';
import { WillItDoPart } from './WillItDoPart';
import { Stage } from '../../app/Stage';

const PARTS = [
  { value: 'ask', label: 'To ask for' },
  { value: 'offers', label: 'Where to buy' },
  { value: 'together', label: 'Share a length' },
  { value: 'cupboard', label: 'Will this piece do?' },
  { value: 'envelope', label: 'Envelope' },
  { value: 'strips', label: 'Strips' },
  { value: 'list', label: 'The list' },
] as const;
type Part = (typeof PARTS)[number]['value'];
const PAGES: Record<Part, typeof Ask> = {
  ask: Ask,
  offers: OffersPart,
  together: TogetherPart,
  cupboard: WillItDoPart,
  envelope: EnvelopePart,
  strips: StripsPart,
  list: ListPart,
};

/** Buy: how much, of which width, and whether the cupboard will do. */
export function Buy() {
  const project = useProject().data!;
  const [part, choose] = usePart(PARTS);
  const Page = PAGES[part];
  return (
    <Stage className="buy">
      <Parts label="Parts of Buy" parts={PARTS} value={part} onChoose={choose}>
        <Page key={`${part}-${project.use_id}`} project={project} />
      </Parts>
    </Stage>
  );
}
