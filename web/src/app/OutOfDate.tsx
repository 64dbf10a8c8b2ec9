import { useAct } from './useAct';
import { Button } from 'antd';
import { useChanges } from '../api/hooks';

/** Why lay and purchase no longer hold, and the one touch that mends it. */
export function OutOfDate({ why }: { why: string }) {
  const changes = useChanges();
  const { run: refresh, error } = useAct(async () => {
    await changes.refresh();
  });
  return (
    <p className="look out-of-date" role="status">
      {why}{' '}
      <Button size="small" onClick={() => void refresh()}>
        Bring up to date
      </Button>
      {error && (
        <span className="spoil" role="alert">
          {error}
        </span>
      )}
    </p>
  );
}
