import { WashdayPart } from './WashdayPart';
import { Stage } from '../app/Stage';

/** The washing day by itself, over all projects. */
export function WashdayPage() {
  return (
    <Stage className="bench">
      <WashdayPart />
    </Stage>
  );
}
