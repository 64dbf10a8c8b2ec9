import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { api, type Gesture, type Lay, saved } from '../api/client';
import { useAsked } from '../api/hooks';
import { keys } from '../api/keys';

/** What is done to a lay by hand; what the server said against the last one stands in `refused` until the next. */
export function useGesture(layId: number) {
  const client = useQueryClient();
  const { id, key, params } = useAsked();
  const { query } = params;
  const [refused, setRefused] = useState('');
  useEffect(() => void followed.delete(layId), [layId]);
  const run = useCallback(
    async (body: Gesture, of?: number) => {
      const turn = waiting;
      let done!: () => void;
      waiting = new Promise((resolve) => (done = resolve));
      await turn;
      try {
        const answer = await saved(
          api.POST('/api/projects/{project_id}/lays/{lay_id}/hand', {
            params: { path: { project_id: id, lay_id: newestOf(of ?? layId) }, query },
            body,
          }),
        );
        await client.cancelQueries({ queryKey: keys.lay(id, key), exact: true });
        if (answer.lay && of === undefined && body.do !== 'empty' && body.do !== 'away')
          followed.set(layId, answer.lay.lay_id);
        client.setQueryData(keys.lay(id, key), answer);
        setRefused('');
        void client.invalidateQueries({
          predicate: ({ queryKey: [what, of] }) =>
            what === 'projects' || (of === id && ['project', 'buy', 'true', 'log'].includes(what as string)),
        });
        return true;
      } catch (fault) {
        setRefused((fault as Error).message);
        void client.invalidateQueries({ queryKey: keys.lay(id, key) });
        return false;
      } finally {
        done();
      }
    },
    [client, id, key, query, layId],
  );
  const keep = (answer: { lay: Lay | null; missing: string }) => {
    setRefused('');
    client.setQueryData(keys.lay(id, key), answer);
    void client.invalidateQueries({ queryKey: keys.project(id) });
  };
  return { run, refused, keep, say: setRefused, forget: useCallback(() => setRefused(''), []) };
}

/** Gestures are done one after another: each is about the lay that the one before it left. */
let waiting: Promise<void> = Promise.resolve();

/** A lay that was found becomes another one, the maker's own, by the first gesture: gestures that were begun before the
    answer came go on with that one. */
const followed = new Map<number, number>();
function newestOf(id: number): number {
  const next = followed.get(id);
  return next === undefined || next === id ? id : newestOf(next);
}
