import { Button } from 'antd';
import { useNavigate } from 'react-router';
import type { Project } from '../api/client';
import { useAt } from '../api/hooks';
import { stageNames } from '../words/stages';

/** Whether a stage waits for another one. */
export const waiting = (project: Project, stage: string) => project.waits.find((w) => w.stage === stage);

/** Which stage this one waits for, what is to be done there, and the way to it. */
export function Waits({ project, stage }: { project: Project; stage: string }) {
  const at = useAt();
  const go = useNavigate();
  const wait = waiting(project, stage);
  if (!wait) return null;
  const word = stageNames[wait.on];
  return (
    <p className="waits" role="status">
      <span>
        <b>
          {stageNames[stage]} waits for {word}:
        </b>{' '}
        {wait.why}
      </span>
      <Button type="primary" data-main onClick={() => void go(at(wait.on))}>
        Go to {word}
      </Button>
    </p>
  );
}
