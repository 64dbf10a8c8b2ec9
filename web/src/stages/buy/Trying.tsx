import { Button, Progress } from 'antd';
import type { useTrials } from './useBuy';

/** How far the lays tried in the background are, with a way to stop and to go on. */
export function Trying({ trials, what }: { trials: ReturnType<typeof useTrials>; what: string }) {
  const { told, stopped } = trials;
  if (!told || told.of === 0) return null;
  if (told.error)
    return (
      <p className="spoil" role="alert">
        {told.error}{' '}
        <Button size="small" onClick={() => void trials.begin()}>
          Try again
        </Button>
      </p>
    );
  if (told.state !== 'idle')
    return (
      <p className="progress" role="status">
        {what}: {told.done} of {told.of}{' '}
        <Progress
          className="bar"
          aria-label={what}
          percent={Math.round((100 * told.done) / told.of)}
          showInfo={false}
          size="small"
        />{' '}
        <Button size="small" onClick={() => void trials.stop()}>
          Stop
        </Button>
      </p>
    );
  if (told.lacking > 0 && stopped)
    return (
      <p className="progress">
        {told.lacking} not tried.{' '}
        <Button size="small" onClick={() => void trials.begin()}>
          Try them
        </Button>
      </p>
    );
  return null;
}
