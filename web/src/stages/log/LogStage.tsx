import { usePart } from '../../api/hooks';
import { Parts } from '../../app/Parts';
import { Stage } from '../../app/Stage';
import { OutcomePart } from './OutcomePart';
import { StepsPart } from './StepsPart';
import { TeachesPart } from './TeachesPart';

const PARTS = [
  { value: 'steps', label: 'Every step' },
  { value: 'outcome', label: 'How it came out' },
  { value: 'teaches', label: 'What it teaches' },
] as const;

/** Log: every step, how it came out, and what that teaches. */
export function LogStage() {
  const [part, choose] = usePart(PARTS);
  return (
    <Stage className="log-stage">
      <Parts label="Parts of Log" parts={PARTS} value={part} onChoose={choose}>
        {part === 'steps' ? <StepsPart /> : part === 'outcome' ? <OutcomePart /> : <TeachesPart />}
      </Parts>
    </Stage>
  );
}
